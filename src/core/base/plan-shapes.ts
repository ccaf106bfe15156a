import type { Point, Wall } from './plan-geometry.ts';
import { WALL_MATERIALS } from './plan-geometry.ts';
import { id, oneOf, real, shapeOf } from './schema-parts.ts';

/** A site is a house and its land: what lies farther is a slip of the finger. */
export const FAR_M = 10_000;

export const pointShape = shapeOf<Point>()({
  xM: real(-FAR_M, FAR_M).required(),
  yM: real(-FAR_M, FAR_M).required(),
});

export const wallShape = shapeOf<Wall>()({
  id: id(),
  from: pointShape,
  to: pointShape,
  material: oneOf(WALL_MATERIALS),
});
