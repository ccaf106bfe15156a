import { TEXT_LIMITS } from './limits.ts';
import { FAR_M, type Point, WALL_MATERIALS, type Wall } from './plan-geometry.ts';
import { id, oneOf, real, shapeOf, text } from './schema-parts.ts';

export const pointShape = shapeOf<Point>()({
  xM: real(-FAR_M, FAR_M).required(),
  yM: real(-FAR_M, FAR_M).required(),
});

export const wallShape = shapeOf<Wall>()({
  id: id(),
  name: text(TEXT_LIMITS.name),
  from: pointShape,
  to: pointShape,
  material: oneOf(WALL_MATERIALS),
});
