import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { flag, id, line, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { POWER_WAYS, RADIO_BANDS } from '../../../base/ways.ts';
import { STREAM_PATH } from '../../../net/path-places.ts';
import type { CardLens } from '../../../optics/lens.ts';
import { secretLimitsShape } from '../secret-limits-shape.ts';
import { guideShape } from './guide-shape.ts';
import {
  type CardLight,
  type FactoryLogin,
  type Learnt,
  LIGHT_KINDS,
  LOCAL_STREAMS,
  LOST_LIMITS,
  MODEL_NOTES_CHARS,
  MODEL_RANGES,
  MOST_LEARNT,
  type Model,
  type ModelPower,
  SOUNDS,
  type SubStream,
} from './model-card.ts';

const codecs = () => list(text(TEXT_LIMITS.codec).min(1).required(), LIST_LIMITS.codecs);
const path = () => line(TEXT_LIMITS.path).matches(STREAM_PATH, '${path} must start with / and hold no blanks');
const pixels = () => within(MODEL_RANGES.sidePx);

/** A lens cannot be longer at its wide end than at its far one, nor see wider than its sensor allows. */
export const lensShape = shapeOf<CardLens>()({
  label: line(TEXT_LIMITS.label).min(1),
  sensorWidthMm: orNull(within(MODEL_RANGES.sensorMm)),
  sensorHeightMm: orNull(within(MODEL_RANGES.sensorMm)),
  focalWideMm: orNull(within(MODEL_RANGES.focalMm)),
  focalTeleMm: orNull(
    within(MODEL_RANGES.focalMm).when('focalWideMm', ([wide], schema) =>
      typeof wide === 'number' ? schema.min(wide, '${path} must not be below the wide end') : schema,
    ),
  ),
  projection: oneOf(['pinhole', 'equidistant']),
  measuredHfovDeg: orNull(within(MODEL_RANGES.measuredHfovDeg)),
  axisDeg: within(MODEL_RANGES.axisDeg),
  widthPx: orNull(pixels()),
  heightPx: orNull(pixels()),
});

const powerShape = shapeOf<ModelPower>()({
  ways: list(oneOf(POWER_WAYS), POWER_WAYS.length),
  poeClass: orNull(within(MODEL_RANGES.poeClass)),
  minVolts: orNull(within(MODEL_RANGES.volts)),
  maxVolts: orNull(within(MODEL_RANGES.volts)),
  dayW: orNull(within(MODEL_RANGES.watts)),
  nightW: orNull(within(MODEL_RANGES.watts)),
  standbyW: orNull(within(MODEL_RANGES.standbyW)),
  batteryWh: orNull(within(MODEL_RANGES.batteryWh)),
  supplyInBox: orNull(flag()),
});

const subs = orNull(
  list(
    shapeOf<SubStream>()({
      codecs: codecs(),
      widthPx: orNull(pixels()),
      heightPx: orNull(pixels()),
      fps: orNull(within(MODEL_RANGES.fps)),
      path: path(),
    }),
    8,
  ),
);

/** One model card, as it lies in a site and in a file of cards. */
export const modelShape = shapeOf<Model>()({
  id: id(),
  maker: line(TEXT_LIMITS.name),
  model: line(TEXT_LIMITS.name).min(1),
  hardwareRev: line(TEXT_LIMITS.label),
  localStream: orNull(oneOf(LOCAL_STREAMS)),
  sessions: orNull(within(MODEL_RANGES.sessions)),
  lenses: list(lensShape, 2),
  codecs: codecs(),
  fps: orNull(within(MODEL_RANGES.fps)),
  path: path(),
  rtspPort: orNull(within(MODEL_RANGES.rtspPort)),
  onvifPort: orNull(within(MODEL_RANGES.rtspPort)),
  channels: orNull(within(MODEL_RANGES.channels)),
  streamSwitch: text(TEXT_LIMITS.place),
  factoryLogin: orNull(shapeOf<FactoryLogin>()({ user: line(TEXT_LIMITS.user), secret: line(TEXT_LIMITS.label) })),
  secretLimits: secretLimitsShape,
  hasSideBranch: orNull(flag()),
  reflash: orNull(guideShape),
  subs,
  panRangeDeg: orNull(within(MODEL_RANGES.rangeDeg)),
  tiltRangeDeg: orNull(within(MODEL_RANGES.rangeDeg)),
  light: orNull(
    shapeOf<CardLight>()({
      kind: oneOf(LIGHT_KINDS),
      reachM: orNull(within(MODEL_RANGES.lightReachM)),
      angleDeg: orNull(within(MODEL_RANGES.rangeDeg)),
    }),
  ),
  ingress: orNull(within(MODEL_RANGES.ingress)),
  sound: orNull(oneOf(SOUNDS)),
  power: powerShape,
  wired: orNull(flag()),
  bands: list(oneOf(RADIO_BANDS), RADIO_BANDS.length),
  cardMaxGB: orNull(within(MODEL_RANGES.cardMaxGB)),
  lostWithoutAccount: orNull(list(text(LOST_LIMITS.max).min(1).required(), LOST_LIMITS.most)),
  price: orNull(within(MODEL_RANGES.price)),
  seats: within(MODEL_RANGES.seats),
  notes: text(MODEL_NOTES_CHARS),
  learnedFrom: list(
    shapeOf<Learnt>()({
      field: text(TEXT_LIMITS.label).min(1),
      said: text(TEXT_LIMITS.place),
      at: line(TEXT_LIMITS.label),
      from: text(TEXT_LIMITS.place),
    }),
    MOST_LEARNT,
  ),
});
