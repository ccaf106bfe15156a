import { LIST_LIMITS, STREAM_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { flag, id, list, oneOf, orNull, positive, real, shapeOf, text, whole } from '../../../base/schema-parts.ts';
import { POWER_WAYS, RADIO_BANDS } from '../../../base/ways.ts';
import type { Lens } from '../../../optics/lens.ts';
import {
  LIGHT_KINDS,
  LOCAL_STREAMS,
  LOST_LIMITS,
  MODEL_NOTES_CHARS,
  type Model,
  type ModelPower,
  SOUNDS,
  type SubStream,
} from './model-card.ts';

const codecs = () => list(text(TEXT_LIMITS.codec).min(1).required(), LIST_LIMITS.codecs);
const pixels = () => whole(16, STREAM_LIMITS.sidePx).required();
const millimetres = (max: number) => positive(max).required();

/** A lens cannot be longer at its wide end than at its far one, nor see wider than its sensor allows. */
export const lensShape = shapeOf<Lens>()({
  label: text(TEXT_LIMITS.label).min(1),
  sensorWidthMm: millimetres(60),
  sensorHeightMm: millimetres(60),
  focalWideMm: millimetres(1000),
  focalTeleMm: millimetres(1000).when('focalWideMm', ([wide], schema) =>
    typeof wide === 'number' ? schema.min(wide, '${path} must not be below the wide end') : schema,
  ),
  projection: oneOf(['pinhole', 'equidistant']),
  measuredHfovDeg: orNull(real(1, 359)),
  axisDeg: real(-180, 180).required(),
  widthPx: pixels(),
  heightPx: pixels(),
});

const powerShape = shapeOf<ModelPower>()({
  ways: list(oneOf(POWER_WAYS), POWER_WAYS.length),
  poeClass: orNull(whole(0, 8)),
  minVolts: orNull(positive(400)),
  maxVolts: orNull(positive(400)),
  dayW: orNull(positive(1000)),
  nightW: orNull(positive(1000)),
  standbyW: orNull(real(0, 1000)),
  batteryWh: orNull(positive(100_000)),
  supplyInBox: orNull(flag()),
});

const subs = orNull(
  list(
    shapeOf<SubStream>()({ codecs: codecs(), widthPx: pixels(), heightPx: pixels(), fps: positive(1000).required() }),
    8,
  ),
);

/** One model card, as it lies in a site and in a file of cards. */
export const modelShape = shapeOf<Model>()({
  id: id(),
  maker: text(TEXT_LIMITS.name),
  model: text(TEXT_LIMITS.name).min(1),
  hardwareRev: text(TEXT_LIMITS.label),
  localStream: orNull(oneOf(LOCAL_STREAMS)),
  sessions: orNull(whole(1, 1000)),
  lenses: list(lensShape, 2),
  codecs: codecs(),
  fps: orNull(positive(1000)),
  subs,
  panRangeDeg: orNull(real(0, 360)),
  tiltRangeDeg: orNull(real(0, 360)),
  light: orNull(
    shapeOf<NonNullable<Model['light']>>()({
      kind: oneOf(LIGHT_KINDS),
      reachM: real(0, 500).required(),
      angleDeg: real(0, 360).required(),
    }),
  ),
  ingress: orNull(whole(0, 69)),
  sound: orNull(oneOf(SOUNDS)),
  power: powerShape,
  wired: orNull(flag()),
  bands: list(oneOf(RADIO_BANDS), RADIO_BANDS.length),
  cardMaxGB: orNull(real(0, 100_000)),
  lostWithoutAccount: list(text(LOST_LIMITS.max).min(1).required(), LOST_LIMITS.most),
  price: orNull(real(0, 1e7)),
  seats: whole(1, 16).required(),
  notes: text(MODEL_NOTES_CHARS),
});
