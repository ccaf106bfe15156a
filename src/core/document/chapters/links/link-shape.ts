import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import { flag, id, line, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import type { Site } from '../../site.ts';
import { thingsOf } from '../../subjects.ts';
import { LINK_MEDIA, LINK_RANGES, type Link } from './link.ts';

export const linkShape = shapeOf<Link>()({
  id: id(),
  name: line(TEXT_LIMITS.name),
  from: text(TEXT_LIMITS.subject).min(1),
  to: text(TEXT_LIMITS.subject).min(1),
  medium: oneOf(LINK_MEDIA),
  lengthM: orNull(within(LINK_RANGES.lengthM)),
  route: orNull(list(pointShape, LIST_LIMITS.routePoints)),
  extraM: within(LINK_RANGES.lengthM),
  areaMm2: orNull(within(LINK_RANGES.areaMm2)),
  isCopperClad: flag(),
  conductorC: within(LINK_RANGES.conductorC),
  leavesBuilding: flag(),
  capacityMbps: orNull(within(LINK_RANGES.capacityMbps)),
});

export function brokenEndOfLink(site: Pick<Site, 'links' | 'cameras' | 'gear' | 'destinations'>): string | null {
  const subjects = new Set(thingsOf(site).map(({ subject }) => subject));
  for (const [index, { from, to }] of site.links.entries())
    for (const end of [from, to]) if (!subjects.has(end)) return `links[${index}]: there is nothing called “${end}”.`;
  return null;
}
