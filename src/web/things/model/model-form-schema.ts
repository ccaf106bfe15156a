import { array, boolean, type InferType, object, string } from 'yup';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../core/base/limits.ts';
import { POWER_WAYS, type PowerWay, RADIO_BANDS, type RadioBand } from '../../../core/base/ways.ts';
import {
  emptyModel,
  LIGHT_KINDS,
  LOCAL_STREAMS,
  LOST_LIMITS,
  MODEL_NOTES_CHARS,
  type Model,
  SOUNDS,
} from '../../../core/document/chapters/models/model-card.ts';
import type { Lens } from '../../../core/optics/lens.ts';
import { lensProblem } from '../../../core/optics/lens-limits.ts';
import { neededNumber, optionalNumber } from '../../ui/form-numbers.ts';
import { nameField, textField, wordsField, wordsOf } from '../../ui/form-texts.ts';

const lens = object({
  label: textField(TEXT_LIMITS.label),
  sensorWidthMm: neededNumber('Sensor width', { min: 0.5, max: 60, unit: 'mm' }),
  sensorHeightMm: neededNumber('Sensor height', { min: 0.5, max: 60, unit: 'mm' }),
  focalWideMm: neededNumber('Focal length', { min: 0.5, max: 1000, unit: 'mm' }),
  focalTeleMm: optionalNumber('Longest focal length', { min: 0.5, max: 1000, unit: 'mm' }),
  bends: boolean().required(),
  measuredHfovDeg: optionalNumber('Measured view', { min: 1, max: 359, unit: '°' }),
  axisDeg: optionalNumber('Axis', { min: -180, max: 180, unit: '°' }),
  widthPx: neededNumber('Pixels across', { min: 16, max: 20_000 }),
  heightPx: neededNumber('Pixels down', { min: 16, max: 20_000 }),
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
  sessions: optionalNumber('Sessions', { min: 1, max: 1000 }),
  // In capitals before they are counted: some letters become two.
  codecs: wordsField('codecs', { most: LIST_LIMITS.codecs, max: TEXT_LIMITS.codec }).transform((text: string) =>
    text.toUpperCase(),
  ),
  fps: optionalNumber('Frames a second', { min: 0.1, max: 1000 }),
  sub: string().defined(),
  subWidthPx: optionalNumber('Pixels across', { min: 16, max: 20_000 }),
  subHeightPx: optionalNumber('Pixels down', { min: 16, max: 20_000 }),
  subFps: optionalNumber('Frames a second', { min: 0.1, max: 1000 }),
  lenses: array(lens).max(2).required(),
  panRangeDeg: optionalNumber('Pan', { min: 0, max: 360, unit: '°' }),
  tiltRangeDeg: optionalNumber('Tilt', { min: 0, max: 360, unit: '°' }),
  lightKind: string().defined(),
  lightReachM: optionalNumber('Reach of its light', { min: 0, max: 500, unit: 'm' }),
  lightAngleDeg: optionalNumber('Angle of its light', { min: 0, max: 360, unit: '°' }),
  ingress: optionalNumber('IP code', { min: 0, max: 69 }),
  sound: string().defined(),
  ways: array(string().defined()).required(),
  poeClass: optionalNumber('Class', { min: 0, max: 8 }),
  minVolts: optionalNumber('Least voltage', { min: 1, max: 400, unit: 'V' }),
  maxVolts: optionalNumber('Highest voltage', { min: 1, max: 400, unit: 'V' }).test(
    'above-least',
    'The highest voltage lies below the least.',
    (value, { parent }) => value === undefined || parent.minVolts === undefined || value >= parent.minVolts,
  ),
  dayW: optionalNumber('Watts by day', { min: 0.01, max: 1000, unit: 'W' }),
  nightW: optionalNumber('Watts at night', { min: 0.01, max: 1000, unit: 'W' }),
  standbyW: optionalNumber('Watts asleep', { min: 0, max: 1000, unit: 'W' }),
  batteryWh: optionalNumber('Battery', { min: 0.1, max: 100_000, unit: 'Wh' }),
  supplyInBox: string().defined(),
  wired: string().defined(),
  bands: array(string().defined()).required(),
  cardMaxGB: optionalNumber('Largest card', { min: 0, max: 100_000, unit: 'GB' }),
  lost: wordsField('losses', LOST_LIMITS),
  price: optionalNumber('Price', { min: 0, max: 1e7 }),
  seats: neededNumber('Seats', { min: 1, max: 16 }),
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
  widthPx: Math.round(fields.widthPx),
  heightPx: Math.round(fields.heightPx),
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
    sessions: fields.sessions === undefined ? null : Math.round(fields.sessions),
    codecs,
    fps: orNull(fields.fps),
    subs:
      fields.sub === 'yes'
        ? [
            {
              codecs: firstSub?.codecs ?? (codecs.includes('JPEG') ? ['JPEG'] : ['H264']),
              widthPx: Math.round(fields.subWidthPx ?? 640),
              heightPx: Math.round(fields.subHeightPx ?? 360),
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
    ingress: fields.ingress === undefined ? null : Math.round(fields.ingress),
    sound: pick(SOUNDS, fields.sound),
    power: {
      ways: fields.ways.filter((way): way is PowerWay => POWER_WAYS.some((one) => one === way)),
      poeClass: fields.poeClass === undefined ? null : Math.round(fields.poeClass),
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
    seats: Math.round(fields.seats),
    notes: fields.notes,
  };
}
