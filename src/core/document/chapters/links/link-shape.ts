import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { FAR_M, pointShape } from '../../../base/plan-shapes.ts';
import { flag, id, list, oneOf, orNull, positive, real, shapeOf, text } from '../../../base/schema-parts.ts';
import { LINK_MEDIA, type Link } from './link.ts';

export const linkShape = shapeOf<Link>()({
  id: id(),
  from: text(TEXT_LIMITS.subject).min(1),
  to: text(TEXT_LIMITS.subject).min(1),
  medium: oneOf(LINK_MEDIA),
  lengthM: real(0, FAR_M).required(),
  route: orNull(list(pointShape, LIST_LIMITS.routePoints)),
  extraM: real(0, FAR_M).required(),
  areaMm2: orNull(positive(500)),
  isCopperClad: flag(),
  conductorC: real(-60, 120).required(),
  leavesBuilding: flag(),
  capacityMbps: orNull(positive(1e6)),
});
