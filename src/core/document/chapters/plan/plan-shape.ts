import { LIST_LIMITS } from '../../../base/limits.ts';
import { FAR_M } from '../../../base/plan-geometry.ts';
import { wallShape } from '../../../base/plan-shapes.ts';
import { flag, line, list, orNull, positive, shapeOf, text, whole, within } from '../../../base/schema-parts.ts';
import { type DrawnPlan, NORTH_DEG, type PlanPicture } from './drawn-plan.ts';

/** Re-encoded when it was taken in; larger would make every saving slow. */
const MAX_PICTURE_CHARS = 3_000_000;
const pictureShape = shapeOf<PlanPicture>()({
  name: line(200),
  dataUrl: text(MAX_PICTURE_CHARS).matches(
    /^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/=]+$/,
    '${path} must be a picture as a data URL',
  ),
  widthPx: whole(1, 8000).required(),
  heightPx: whole(1, 8000).required(),
  metresPerPx: positive(100).required(),
  isScaled: flag(),
});

export const planShape = shapeOf<DrawnPlan>()({
  widthM: positive(FAR_M).required(),
  heightM: positive(FAR_M).required(),
  picture: orNull(pictureShape),
  walls: list(wallShape, LIST_LIMITS.walls),
  northDeg: orNull(within(NORTH_DEG)),
});
