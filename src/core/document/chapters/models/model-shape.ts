import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { id, line, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { POWER_WAYS } from '../../../base/ways.ts';
import { pathShape, shapeFrom } from '../../../fields/field-shapes.ts';
import type { CardLens } from '../../../optics/lens.ts';
import { secretLimitsShape } from '../secret-limits-shape.ts';
import { guideShape } from './guide-shape.ts';
import {
  type CardLight,
  type FactoryLogin,
  type Learnt,
  LIGHT_KINDS,
  LOST_LIMITS,
  MOST_LEARNT,
  type Model,
  type ModelPower,
  type SubStream,
} from './model-card.ts';
import { LIGHT_FIELDS, MODEL_FIELDS, MODEL_RANGES, POWER_FIELDS } from './model-fields.ts';

const codecs = () => list(text(TEXT_LIMITS.codec).min(1).required(), LIST_LIMITS.codecs);
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

const powerShape = shapeFrom<ModelPower>()(POWER_FIELDS, {
  ways: list(oneOf(POWER_WAYS), POWER_WAYS.length),
  poeClass: orNull(within(MODEL_RANGES.poeClass)),
  minVolts: orNull(within(MODEL_RANGES.volts)),
  maxVolts: orNull(within(MODEL_RANGES.volts)),
});

const subs = orNull(
  list(
    shapeOf<SubStream>()({
      codecs: codecs(),
      widthPx: orNull(pixels()),
      heightPx: orNull(pixels()),
      fps: orNull(within(MODEL_RANGES.fps)),
      path: pathShape(TEXT_LIMITS.path),
    }),
    8,
  ),
);

/** One model card, as it lies in a site and in a file of cards. */
export const modelShape = shapeFrom<Model>()(MODEL_FIELDS, {
  id: id(),
  lenses: list(lensShape, 2),
  codecs: codecs(),
  subs,
  light: orNull(shapeFrom<CardLight>()(LIGHT_FIELDS, { kind: oneOf(LIGHT_KINDS) })),
  ingress: orNull(within(MODEL_RANGES.ingress)),
  power: powerShape,
  factoryLogin: orNull(shapeOf<FactoryLogin>()({ user: line(TEXT_LIMITS.user), secret: line(TEXT_LIMITS.label) })),
  secretLimits: secretLimitsShape,
  reflash: orNull(guideShape),
  lostWithoutAccount: orNull(list(text(LOST_LIMITS.max).min(1).required(), LOST_LIMITS.most)),
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
