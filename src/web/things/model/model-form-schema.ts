import { array, boolean, type InferType, object, string } from 'yup';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../core/base/limits.ts';
import { POWER_WAYS, type PowerWay, RADIO_BANDS, type RadioBand } from '../../../core/base/ways.ts';
import {
  emptyModel,
  LIGHT_KINDS,
  LOCAL_STREAMS,
  LOST_LIMITS,
  MODEL_NOTES_CHARS,
  MODEL_RANGES,
  type Model,
  SOUNDS,
} from '../../../core/document/chapters/models/model-card.ts';
import type { Lens } from '../../../core/optics/lens.ts';
import { lensProblem } from '../../../core/optics/lens-limits.ts';
import { neededNumber, optionalNumber } from '../../ui/form-numbers.ts';
import { nameField, textField, wordsField, wordsOf } from '../../ui/form-texts.ts';

const lens = object({
  label: textField(TEXT_LIMITS.label),
  sensorWidthMm: neededNumber('Sensor width', MODEL_RANGES.sensorMm),
  sensorHeightMm: neededNumber('Sensor height', MODEL_RANGES.sensorMm),
  focalWideMm: neededNumber('Focal length', MODEL_RANGES.focalMm),
  focalTeleMm: optionalNumber('Longest focal length', MODEL_RANGES.focalMm),
  bends: boolean().required(),
  measuredHfovDeg: optionalNumber('Measured view', MODEL_RANGES.measuredHfovDeg),
  axisDeg: optionalNumber('Axis', MODEL_RANGES.axisDeg),
  widthPx: neededNumber('Pixels across', MODEL_RANGES.sidePx),
  heightPx: neededNumber('Pixels down', MODEL_RANGES.sidePx),
}).test('lens', function (value) {
  const { widthPx, heightPx, sensorWidthMm, sensorHeightMm, focalWideMm } = value;
  if ([widthPx, heightPx, sensorWidthMm, sensorHeightMm, focalWideMm].some((number) => !(number > 0))) return true;
  const problem = lensProblem(lensOf(value, 0));
  return problem === null || this.createError({ path: `${this.path}.${problem.field}`, message: problem.text });
});

export const modelFormSchema = object({
  maker: textField(TEXT_LIMITS.name),
  model: nameField('A model is needed.'),
  hardwareRev: textField(TEXT_LIMITS.label),
  localStream: string().defined(),
  sessions: optionalNumber('Sessions', MODEL_RANGES.sessions),
  // In capitals before they are counted: some letters become two.
  codecs: wordsField('codecs', { most: LIST_LIMITS.codecs, max: TEXT_LIMITS.codec }).transform((text: string) =>
    text.toUpperCase(),
  ),
  fps: optionalNumber('Frames a second', MODEL_RANGES.fps),
  sub: string().defined(),
  subWidthPx: optionalNumber('Pixels across', MODEL_RANGES.sidePx),
  subHeightPx: optionalNumber('Pixels down', MODEL_RANGES.sidePx),
  subFps: optionalNumber('Frames a second', MODEL_RANGES.fps),
  lenses: array(lens).max(2).required(),
  panRangeDeg: optionalNumber('Pan', MODEL_RANGES.rangeDeg),
  tiltRangeDeg: optionalNumber('Tilt', MODEL_RANGES.rangeDeg),
  lightKind: string().defined(),
  lightReachM: optionalNumber('Reach of its light', MODEL_RANGES.lightReachM),
  lightAngleDeg: optionalNumber('Angle of its light', MODEL_RANGES.rangeDeg),
  ingress: optionalNumber('IP code', MODEL_RANGES.ingress),
  sound: string().defined(),
  ways: array(string().defined()).required(),
  poeClass: optionalNumber('Class', MODEL_RANGES.poeClass),
  minVolts: optionalNumber('Least voltage', MODEL_RANGES.volts),
  maxVolts: optionalNumber('Highest voltage', MODEL_RANGES.volts).test(
    'above-least',
    'The highest voltage lies below the least.',
    (value, { parent }) => value === undefined || parent.minVolts === undefined || value >= parent.minVolts,
  ),
  dayW: optionalNumber('Watts by day', MODEL_RANGES.watts),
  nightW: optionalNumber('Watts at night', MODEL_RANGES.watts),
  standbyW: optionalNumber('Watts asleep', MODEL_RANGES.standbyW),
  batteryWh: optionalNumber('Battery', MODEL_RANGES.batteryWh),
  supplyInBox: string().defined(),
  wired: string().defined(),
  bands: array(string().defined()).required(),
  cardMaxGB: optionalNumber('Largest card', MODEL_RANGES.cardMaxGB),
  lost: wordsField('losses', LOST_LIMITS),
  price: optionalNumber('Price', MODEL_RANGES.price),
  seats: neededNumber('Seats', MODEL_RANGES.seats),
  notes: textField(MODEL_NOTES_CHARS),
});
export type ModelFields = InferType<typeof modelFormSchema>;
type LensFields = ModelFields['lenses'][number];

const pick = <T extends string>(values: readonly T[], value: string): T | null =>
  values.find((one) => one === value) ?? null;
const yesNo = (value: string): boolean | null => (value === 'yes' ? true : value === 'no' ? false : null);
const sayYesNo = (value: boolean | null): string => (value === null ? '' : value ? 'yes' : 'no');
const orNull = (value: number | undefined): number | null => value ?? null;

const lensOf = (fields: LensFields, at: number): Lens => ({
  label: fields.label || (at === 0 ? 'first' : 'second'),
  sensorWidthMm: fields.sensorWidthMm,
  sensorHeightMm: fields.sensorHeightMm,
  focalWideMm: fields.focalWideMm,
  focalTeleMm: fields.focalTeleMm ?? fields.focalWideMm,
  projection: fields.bends ? 'equidistant' : 'pinhole',
  measuredHfovDeg: orNull(fields.measuredHfovDeg),
  axisDeg: fields.axisDeg ?? 0,
  widthPx: fields.widthPx,
  heightPx: fields.heightPx,
});

/** A lens as most cheap cameras have it: 1/2.8", 2.8 mm, 1920 × 1080. */
export const USUAL_LENS: LensFields = {
  label: '',
  sensorWidthMm: 5.6,
  sensorHeightMm: 3.15,
  focalWideMm: 2.8,
  focalTeleMm: undefined,
  bends: false,
  measuredHfovDeg: undefined,
  axisDeg: undefined,
  widthPx: 1920,
  heightPx: 1080,
};

export function fieldsOf(card: Model): ModelFields {
  const sub = card.subs?.[0];
  const { power } = card;
  const number = (value: number | null): number | undefined => value ?? undefined;
  return {
    maker: card.maker,
    model: card.model,
    hardwareRev: card.hardwareRev,
    localStream: card.localStream ?? '',
    sessions: number(card.sessions),
    codecs: card.codecs.join(', '),
    fps: number(card.fps),
    sub: card.subs === null ? '' : sub ? 'yes' : 'no',
    subWidthPx: sub?.widthPx,
    subHeightPx: sub?.heightPx,
    subFps: sub?.fps,
    lenses: card.lenses.map(({ projection, ...lens }) => ({
      ...lens,
      focalTeleMm: lens.focalTeleMm === lens.focalWideMm ? undefined : lens.focalTeleMm,
      measuredHfovDeg: number(lens.measuredHfovDeg),
      bends: projection === 'equidistant',
    })),
    panRangeDeg: number(card.panRangeDeg),
    tiltRangeDeg: number(card.tiltRangeDeg),
    lightKind: card.light?.kind ?? '',
    lightReachM: card.light?.reachM,
    lightAngleDeg: card.light?.angleDeg,
    ingress: number(card.ingress),
    sound: card.sound ?? '',
    ways: [...power.ways],
    poeClass: number(power.poeClass),
    minVolts: number(power.minVolts),
    maxVolts: number(power.maxVolts),
    dayW: number(power.dayW),
    nightW: number(power.nightW),
    standbyW: number(power.standbyW),
    batteryWh: number(power.batteryWh),
    supplyInBox: sayYesNo(power.supplyInBox),
    wired: sayYesNo(card.wired),
    bands: [...card.bands],
    cardMaxGB: number(card.cardMaxGB),
    lost: card.lostWithoutAccount.join(', '),
    price: number(card.price),
    seats: card.seats,
    notes: card.notes,
  };
}

/** The card that the fields say. What was left empty is not known; what no field shows stays as it was before. */
export function cardOf(id: string, fields: ModelFields, before: Model | null = null): Model {
  const [firstSub, ...otherSubs] = before?.subs ?? [];
  const lightKind = pick(LIGHT_KINDS, fields.lightKind);
  const codecs = wordsOf(fields.codecs);
  return {
    ...emptyModel(id, fields.maker, fields.model),
    hardwareRev: fields.hardwareRev,
    localStream: pick(LOCAL_STREAMS, fields.localStream),
    sessions: orNull(fields.sessions),
    codecs,
    fps: orNull(fields.fps),
    subs:
      fields.sub === 'yes'
        ? [
            {
              codecs: firstSub?.codecs ?? (codecs.includes('JPEG') ? ['JPEG'] : ['H264']),
              widthPx: fields.subWidthPx ?? 640,
              heightPx: fields.subHeightPx ?? 360,
              fps: fields.subFps ?? 10,
            },
            ...otherSubs,
          ]
        : fields.sub === 'no'
          ? []
          : null,
    lenses: fields.lenses.map(lensOf),
    panRangeDeg: orNull(fields.panRangeDeg),
    tiltRangeDeg: orNull(fields.tiltRangeDeg),
    light: lightKind
      ? { kind: lightKind, reachM: fields.lightReachM ?? 0, angleDeg: fields.lightAngleDeg ?? 90 }
      : null,
    ingress: orNull(fields.ingress),
    sound: pick(SOUNDS, fields.sound),
    power: {
      ways: fields.ways.filter((way): way is PowerWay => POWER_WAYS.some((one) => one === way)),
      poeClass: orNull(fields.poeClass),
      minVolts: orNull(fields.minVolts),
      maxVolts: orNull(fields.maxVolts),
      dayW: orNull(fields.dayW),
      nightW: orNull(fields.nightW),
      standbyW: orNull(fields.standbyW),
      batteryWh: orNull(fields.batteryWh),
      supplyInBox: yesNo(fields.supplyInBox),
    },
    wired: yesNo(fields.wired),
    bands: fields.bands.filter((band): band is RadioBand => RADIO_BANDS.some((one) => one === band)),
    cardMaxGB: orNull(fields.cardMaxGB),
    lostWithoutAccount: wordsOf(fields.lost),
    price: orNull(fields.price),
    seats: fields.seats,
    notes: fields.notes,
  };
}
