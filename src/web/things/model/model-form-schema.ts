import { array, boolean, type InferType, object, string } from 'yup';
import { SECRET_LIMIT_RANGES } from '../../../core/auth/secret-limits.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../core/base/limits.ts';
import { RADIO_BANDS, type RadioBand } from '../../../core/base/ways.ts';
import {
  emptyModel,
  LIGHT_KINDS,
  LOCAL_STREAMS,
  LOST_LIMITS,
  MODEL_NOTES_CHARS,
  MODEL_RANGES,
  type Model,
  SOUNDS,
  type SubStream,
} from '../../../core/document/chapters/models/model-card.ts';
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
import { STREAM_PATH } from '../../../core/net/path-places.ts';
import { type CardLens, wholeLens } from '../../../core/optics/lens.ts';
import { lensProblem } from '../../../core/optics/lens-limits.ts';
import { neededNumber, optionalNumber } from '../../ui/form-numbers.ts';
import {
  lineField,
  nameField,
  notesField,
  readOr,
  signsField,
  sizeField,
  textField,
  wordsField,
  wordsOf,
  writtenField,
} from '../../ui/form-texts.ts';

const path = () =>
  string()
    .trim()
    .max(TEXT_LIMITS.path)
    .matches(
      STREAM_PATH,
      'A path starts with / and has no blanks. {channel}, {user} and {secret} stand for what is filled in.',
    )
    .defined();
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
  measuredHfovDeg: optionalNumber('View across', MODEL_RANGES.measuredHfovDeg),
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
  fps: optionalNumber('Frames a second', MODEL_RANGES.fps),
  path: path(),
});

/** As many small streams as a card lists. */
export const MOST_SUBS = 8;

export const modelFormSchema = object({
  maker: textField(TEXT_LIMITS.name),
  model: nameField('A model is needed.'),
  hardwareRev: textField(TEXT_LIMITS.label),
  localStream: string().defined(),
  sessions: optionalNumber('Sessions', MODEL_RANGES.sessions),
  codecs: codecsField(),
  fps: optionalNumber('Frames a second', MODEL_RANGES.fps),
  path: path(),
  rtspPort: optionalNumber('Port', MODEL_RANGES.rtspPort),
  onvifPort: optionalNumber('ONVIF port', MODEL_RANGES.rtspPort),
  channels: optionalNumber('Channels', MODEL_RANGES.channels),
  streamSwitch: textField(TEXT_LIMITS.place),
  hasSideBranch: string().defined(),
  factoryUser: lineField(TEXT_LIMITS.user),
  factorySecret: lineField(TEXT_LIMITS.label),
  longestSecret: optionalNumber('Longest secret', SECRET_LIMIT_RANGES.longest),
  refusedSigns: signsField(),
  sub: string().defined(),
  subs: array(sub).max(MOST_SUBS).required(),
  lenses: array(lens).max(2).required(),
  panRangeDeg: optionalNumber('Pan', MODEL_RANGES.rangeDeg),
  tiltRangeDeg: optionalNumber('Tilt', MODEL_RANGES.rangeDeg),
  lightKind: string().defined(),
  lightReachM: optionalNumber('Reach of its light', MODEL_RANGES.lightReachM),
  lightAngleDeg: optionalNumber('Angle of its light', MODEL_RANGES.rangeDeg),
  ingress: writtenField(readIngress),
  sound: string().defined(),
  fedBy: writtenField(readFedBy, ({ minVolts, maxVolts }) => {
    if (minVolts !== null && maxVolts !== null && maxVolts < minVolts)
      return 'The highest voltage lies below the least.';
    return [minVolts, maxVolts].every((volts) => volts === null || (volts > 0 && volts <= MODEL_RANGES.volts.max))
      ? null
      : `Up to ${MODEL_RANGES.volts.max} V.`;
  }),
  dayW: optionalNumber('Watts by day', MODEL_RANGES.watts),
  nightW: optionalNumber('Watts at night', MODEL_RANGES.watts),
  standbyW: optionalNumber('Watts asleep', MODEL_RANGES.standbyW),
  batteryWh: optionalNumber('Battery', MODEL_RANGES.batteryWh),
  supplyInBox: string().defined(),
  wired: string().defined(),
  bands: array(string().defined()).required(),
  cardMaxGB: optionalNumber('Largest card', MODEL_RANGES.cardMaxGB),
  lostKnown: string().defined(),
  lost: wordsField('losses', LOST_LIMITS),
  price: optionalNumber('Price', MODEL_RANGES.price),
  seats: neededNumber('Seats', MODEL_RANGES.seats),
  notes: notesField(MODEL_NOTES_CHARS),
});
export type ModelFields = InferType<typeof modelFormSchema>;
type LensFields = ModelFields['lenses'][number];
export type SubFields = ModelFields['subs'][number];

const pick = <T extends string>(values: readonly T[], value: string): T | null =>
  values.find((one) => one === value) ?? null;
const yesNo = (value: string): boolean | null => (value === 'yes' ? true : value === 'no' ? false : null);
const sayYesNo = (value: boolean | null): string => (value === null ? '' : value ? 'yes' : 'no');
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

export function fieldsOf(card: Model): ModelFields {
  const { power } = card;
  const number = (value: number | null): number | undefined => value ?? undefined;
  return {
    maker: card.maker,
    model: card.model,
    hardwareRev: card.hardwareRev,
    localStream: card.localStream ?? '',
    sessions: number(card.sessions),
    codecs: sayCodecs(card.codecs),
    fps: number(card.fps),
    path: card.path,
    rtspPort: number(card.rtspPort),
    onvifPort: number(card.onvifPort),
    channels: number(card.channels),
    streamSwitch: card.streamSwitch,
    hasSideBranch: sayYesNo(card.hasSideBranch),
    factoryUser: card.factoryLogin?.user ?? '',
    factorySecret: card.factoryLogin?.secret ?? '',
    longestSecret: number(card.secretLimits.longest),
    refusedSigns: card.secretLimits.refused,
    sub: card.subs === null ? '' : card.subs.length > 0 ? 'yes' : 'no',
    subs: (card.subs ?? []).map((one) => ({
      codecs: sayCodecs(one.codecs),
      size: saySize(one),
      fps: number(one.fps),
      path: one.path,
    })),
    lenses: card.lenses.map((one) => ({
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
    panRangeDeg: number(card.panRangeDeg),
    tiltRangeDeg: number(card.tiltRangeDeg),
    lightKind: card.light?.kind ?? '',
    lightReachM: number(card.light?.reachM ?? null),
    lightAngleDeg: number(card.light?.angleDeg ?? null),
    ingress: card.ingress === null ? '' : sayIngress(card.ingress),
    sound: card.sound ?? '',
    fedBy: sayFedBy(power),
    dayW: number(power.dayW),
    nightW: number(power.nightW),
    standbyW: number(power.standbyW),
    batteryWh: number(power.batteryWh),
    supplyInBox: sayYesNo(power.supplyInBox),
    wired: sayYesNo(card.wired),
    bands: [...card.bands],
    cardMaxGB: number(card.cardMaxGB),
    lostKnown: card.lostWithoutAccount === null ? '' : card.lostWithoutAccount.length > 0 ? 'yes' : 'no',
    lost: (card.lostWithoutAccount ?? []).join(', '),
    price: number(card.price),
    seats: card.seats,
    notes: card.notes,
  };
}

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
    ...emptyModel(id, fields.maker, fields.model),
    hardwareRev: fields.hardwareRev,
    localStream: pick(LOCAL_STREAMS, fields.localStream),
    sessions: orNull(fields.sessions),
    codecs: readOr(readCodecs, fields.codecs, []),
    fps: orNull(fields.fps),
    path: fields.path,
    rtspPort: orNull(fields.rtspPort),
    onvifPort: orNull(fields.onvifPort),
    channels: orNull(fields.channels),
    streamSwitch: fields.streamSwitch,
    hasSideBranch: yesNo(fields.hasSideBranch),
    factoryLogin:
      fields.factoryUser === '' && fields.factorySecret === ''
        ? null
        : { user: fields.factoryUser, secret: fields.factorySecret },
    secretLimits: {
      longest: orNull(fields.longestSecret),
      refused: fields.refusedSigns,
    },
    reflash: before.reflash,
    learnedFrom: before.learnedFrom,
    subs: fields.sub === 'yes' ? fields.subs.map(subOf) : fields.sub === 'no' ? [] : null,
    lenses: fields.lenses.filter(isWritten).map(lensOf),
    panRangeDeg: orNull(fields.panRangeDeg),
    tiltRangeDeg: orNull(fields.tiltRangeDeg),
    light: lightKind
      ? { kind: lightKind, reachM: orNull(fields.lightReachM), angleDeg: orNull(fields.lightAngleDeg) }
      : null,
    ingress: readOr(readIngress, fields.ingress, null),
    sound: pick(SOUNDS, fields.sound),
    power: {
      ...readOr(readFedBy, fields.fedBy, NOTHING_FEEDS),
      dayW: orNull(fields.dayW),
      nightW: orNull(fields.nightW),
      standbyW: orNull(fields.standbyW),
      batteryWh: orNull(fields.batteryWh),
      supplyInBox: yesNo(fields.supplyInBox),
    },
    wired: yesNo(fields.wired),
    bands: fields.bands.filter((band): band is RadioBand => RADIO_BANDS.some((one) => one === band)),
    cardMaxGB: orNull(fields.cardMaxGB),
    lostWithoutAccount: lost.length > 0 ? lost : fields.lostKnown === 'no' ? [] : null,
    price: orNull(fields.price),
    seats: fields.seats,
    notes: fields.notes,
  };
}
