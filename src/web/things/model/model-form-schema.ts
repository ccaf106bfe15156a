import { array, boolean, type InferType, object, string } from 'yup';
import { SECRET_LIMIT_RANGES } from '../../../core/auth/secret-limits.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../core/base/limits.ts';
import {
  LIGHT_KINDS,
  LOST_LIMITS,
  type Model,
  type SubStream,
} from '../../../core/document/chapters/models/model-card.ts';
import {
  emptyModel,
  LIGHT_FIELDS,
  MODEL_FIELDS,
  MODEL_RANGES,
  POWER_FIELDS,
} from '../../../core/document/chapters/models/model-fields.ts';
import {
  readCodecs,
  readFedBy,
  readFocal,
  readIngress,
  readSensor,
  readSize,
  sayCodecs,
  sayFedBy,
  sayFocal,
  sayIngress,
  saySensor,
  saySize,
} from '../../../core/figures/written-figures.ts';
import { type CardLens, wholeLens } from '../../../core/optics/lens.ts';
import { lensProblem } from '../../../core/optics/lens-limits.ts';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { formTable, pathSchema } from '../../ui/form-table.ts';
import {
  lineField,
  readOr,
  signsField,
  sizeField,
  textField,
  wordsField,
  wordsOf,
  writtenField,
} from '../../ui/form-texts.ts';

const inRange = (range: { readonly min: number; readonly max: number }, value: number | null): boolean =>
  value === null || (value >= range.min && value <= range.max);

/** Where what is wrong with a lens is said. */
const FIELD_OF = {
  focalWideMm: 'focal',
  focalTeleMm: 'focal',
  measuredHfovDeg: 'measuredHfovDeg',
  heightPx: 'size',
} as const;

const lens = object({
  label: textField(TEXT_LIMITS.label),
  size: sizeField(MODEL_RANGES.sidePx),
  focal: writtenField(readFocal, ({ wideMm, teleMm }) =>
    inRange(MODEL_RANGES.focalMm, wideMm) && inRange(MODEL_RANGES.focalMm, teleMm) ? null : 'At most 1000 mm.',
  ),
  sensor: writtenField(readSensor, ({ widthMm, heightMm }) =>
    widthMm > 0 && heightMm > 0 && widthMm <= 60 && heightMm <= 60 ? null : 'A sensor is up to 60 mm wide.',
  ),
  bends: boolean().required(),
  measuredHfovDeg: optionalNumber('Horizontal angle of view', MODEL_RANGES.measuredHfovDeg),
  axisDeg: optionalNumber('Axis', MODEL_RANGES.axisDeg),
}).test('lens', function (value) {
  const whole = wholeLens(lensOf(value, 0));
  const problem = whole && lensProblem(whole);
  return !problem || this.createError({ path: `${this.path}.${FIELD_OF[problem.field]}`, message: problem.text });
});

const codecsField = () =>
  writtenField(readCodecs, (codecs) =>
    codecs.length > LIST_LIMITS.codecs ? `At most ${LIST_LIMITS.codecs} codecs.` : null,
  );

const sub = object({
  codecs: codecsField(),
  size: sizeField(MODEL_RANGES.sidePx),
  fps: optionalNumber('Frame rate', MODEL_RANGES.fps),
  path: pathSchema(TEXT_LIMITS.path),
});

/** As many small streams as a card lists. */
export const MOST_SUBS = 8;

const card = formTable(MODEL_FIELDS);
const power = formTable(POWER_FIELDS);
const light = formTable(LIGHT_FIELDS);

export const modelFormSchema = object({
  ...card.fields,
  codecs: codecsField(),
  factoryUser: lineField(TEXT_LIMITS.user),
  factorySecret: lineField(TEXT_LIMITS.label),
  longestSecret: optionalNumber('Longest password', SECRET_LIMIT_RANGES.longest),
  refusedSigns: signsField(),
  sub: string().defined(),
  subs: array(sub).max(MOST_SUBS).required(),
  lenses: array(lens).max(2).required(),
  lightKind: string().defined(),
  light: object(light.fields),
  ingress: writtenField(readIngress),
  fedBy: writtenField(readFedBy, ({ minVolts, maxVolts }) => {
    if (minVolts !== null && maxVolts !== null && maxVolts < minVolts)
      return 'The highest voltage lies below the lowest.';
    return [minVolts, maxVolts].every((volts) => volts === null || (volts > 0 && volts <= MODEL_RANGES.volts.max))
      ? null
      : `Up to ${MODEL_RANGES.volts.max} V.`;
  }),
  power: object(power.fields),
  lostKnown: string().defined(),
  lost: wordsField('losses', LOST_LIMITS),
});
export type ModelFields = InferType<typeof modelFormSchema>;
type LensFields = ModelFields['lenses'][number];
export type SubFields = ModelFields['subs'][number];

const pick = <T extends string>(values: readonly T[], value: string): T | null =>
  values.find((one) => one === value) ?? null;
const orNull = (value: number | undefined): number | null => value ?? null;
const NO_SIZE = { widthPx: null, heightPx: null };

/** A lens of which nothing is written is none. */
const isWritten = ({ label, size, focal, sensor, measuredHfovDeg, bends }: LensFields): boolean =>
  [label, size, focal, sensor].some((text) => text !== '') || measuredHfovDeg !== undefined || bends;

function lensOf(fields: LensFields, at: number): CardLens {
  const { wideMm, teleMm } = readOr(readFocal, fields.focal, { wideMm: null, teleMm: null });
  const sensor = readOr(readSensor, fields.sensor, null);
  return {
    label: fields.label || (at === 0 ? 'first' : 'second'),
    sensorWidthMm: sensor?.widthMm ?? null,
    sensorHeightMm: sensor?.heightMm ?? null,
    focalWideMm: wideMm,
    focalTeleMm: teleMm,
    projection: fields.bends ? 'equidistant' : 'pinhole',
    measuredHfovDeg: orNull(fields.measuredHfovDeg),
    axisDeg: fields.axisDeg ?? 0,
    ...readOr(readSize, fields.size, NO_SIZE),
  };
}

/** Nothing is known of a new lens. */
export const NEW_LENS: LensFields = {
  label: '',
  size: '',
  focal: '',
  sensor: '',
  bends: false,
  measuredHfovDeg: undefined,
  axisDeg: undefined,
};
export const NEW_SUB: SubFields = { codecs: '', size: '', fps: undefined, path: '' };

export function fieldsOf(known: Model): ModelFields {
  const number = (value: number | null): number | undefined => value ?? undefined;
  return {
    ...card.show(known),
    codecs: sayCodecs(known.codecs),
    factoryUser: known.factoryLogin?.user ?? '',
    factorySecret: known.factoryLogin?.secret ?? '',
    longestSecret: number(known.secretLimits.longest),
    refusedSigns: known.secretLimits.refused,
    sub: known.subs === null ? '' : known.subs.length > 0 ? 'yes' : 'no',
    subs: (known.subs ?? []).map((one) => ({
      codecs: sayCodecs(one.codecs),
      size: saySize(one),
      fps: number(one.fps),
      path: one.path,
    })),
    lenses: known.lenses.map((one) => ({
      label: one.label,
      size: saySize(one),
      focal: sayFocal({ wideMm: one.focalWideMm, teleMm: one.focalTeleMm }),
      sensor:
        one.sensorWidthMm === null || one.sensorHeightMm === null
          ? ''
          : saySensor({ widthMm: one.sensorWidthMm, heightMm: one.sensorHeightMm }),
      bends: one.projection === 'equidistant',
      measuredHfovDeg: number(one.measuredHfovDeg),
      axisDeg: one.axisDeg === 0 ? undefined : one.axisDeg,
    })),
    lightKind: known.light?.kind ?? '',
    light: light.show(known.light ?? NO_LIGHT),
    ingress: known.ingress === null ? '' : sayIngress(known.ingress),
    fedBy: sayFedBy(known.power),
    power: power.show(known.power),
    lostKnown: known.lostWithoutAccount === null ? '' : known.lostWithoutAccount.length > 0 ? 'yes' : 'no',
    lost: (known.lostWithoutAccount ?? []).join(', '),
  };
}

const NO_LIGHT = { reachM: null, angleDeg: null };
const NOTHING_FEEDS = { ways: [], poeClass: null, minVolts: null, maxVolts: null };

const subOf = ({ codecs, size, fps, path }: SubFields): SubStream => ({
  codecs: readOr(readCodecs, codecs, []),
  ...readOr(readSize, size, NO_SIZE),
  fps: orNull(fps),
  path,
});

/**
 * The card that the fields say. What was left empty is not known.
 * @param before the card that is changed, which keeps what this form does not ask: how it is reflashed
 */
export function cardOf(id: string, fields: ModelFields, before: Model = emptyModel(id, '', '')): Model {
  const lightKind = pick(LIGHT_KINDS, fields.lightKind);
  const lost = wordsOf(fields.lost);
  return {
    id,
    ...card.read(fields),
    codecs: readOr(readCodecs, fields.codecs, []),
    factoryLogin:
      fields.factoryUser === '' && fields.factorySecret === ''
        ? null
        : { user: fields.factoryUser, secret: fields.factorySecret },
    secretLimits: { longest: orNull(fields.longestSecret), refused: fields.refusedSigns },
    reflash: before.reflash,
    learnedFrom: before.learnedFrom,
    subs: fields.sub === 'yes' ? fields.subs.map(subOf) : fields.sub === 'no' ? [] : null,
    lenses: fields.lenses.filter(isWritten).map(lensOf),
    light: lightKind ? { kind: lightKind, ...light.read(fields.light) } : null,
    ingress: readOr(readIngress, fields.ingress, null),
    power: { ...readOr(readFedBy, fields.fedBy, NOTHING_FEEDS), ...power.read(fields.power) },
    lostWithoutAccount: lost.length > 0 ? lost : fields.lostKnown === 'no' ? [] : null,
  };
}
