import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import { id, list, oneOf, orNull, text } from '../../../base/schema-parts.ts';
import { shapeFrom } from '../../../fields/field-shapes.ts';
import type { Site } from '../../site.ts';
import { thingsOf } from '../../subjects.ts';
import { LINK_MEDIA, type Link } from './link.ts';
import { LINK_FIELDS } from './link-fields.ts';

export const linkShape = shapeFrom<Link>()(LINK_FIELDS, {
  id: id(),
  from: text(TEXT_LIMITS.subject).min(1),
  to: text(TEXT_LIMITS.subject).min(1),
  medium: oneOf(LINK_MEDIA),
  route: orNull(list(pointShape, LIST_LIMITS.routePoints)),
});

export function brokenEndOfLink(site: Pick<Site, 'links' | 'cameras' | 'gear' | 'destinations'>): string | null {
  const subjects = new Set(thingsOf(site).map(({ subject }) => subject));
  for (const [index, { from, to }] of site.links.entries())
    for (const end of [from, to]) if (!subjects.has(end)) return `links[${index}]: there is nothing called “${end}”.`;
  return null;
}
