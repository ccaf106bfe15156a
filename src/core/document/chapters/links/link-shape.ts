import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import { flag, id, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { LINK_MEDIA, LINK_RANGES, type Link } from './link.ts';

export const linkShape = shapeOf<Link>()({
  id: id(),
  from: text(TEXT_LIMITS.subject).min(1),
  to: text(TEXT_LIMITS.subject).min(1),
  medium: oneOf(LINK_MEDIA),
  lengthM: within(LINK_RANGES.lengthM),
  route: orNull(list(pointShape, LIST_LIMITS.routePoints)),
  extraM: within(LINK_RANGES.lengthM),
  areaMm2: orNull(within(LINK_RANGES.areaMm2)),
  isCopperClad: flag(),
  conductorC: within(LINK_RANGES.conductorC),
  leavesBuilding: flag(),
  capacityMbps: orNull(within(LINK_RANGES.capacityMbps)),
});
