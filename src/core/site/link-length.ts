import { assumed, type ChangedAssumptions } from '../assumptions/assumptions.ts';
import { distanceM, type Point } from '../base/plan-geometry.ts';
import type { Link } from '../document/chapters/links/link.ts';
import type { Site } from '../document/site.ts';
import { positionOf } from '../document/subjects.ts';

/** How a length is known: drawn along its way, typed, or straight across the plan with a share more for corners. */
export interface LinkLength {
  readonly lengthM: number;
  readonly how: 'drawn' | 'typed' | 'straight';
}

/** Along the points of its drawing, with what comes on top of it, m. */
function drawnM(route: readonly Point[], extraM: number): number {
  let length = extraM;
  for (const [at, point] of route.entries()) {
    const before = route[at - 1];
    if (before) length += distanceM(before, point);
  }
  return length;
}

/** As drawn, else as typed, else as the plan lets one guess; `null` where one of its ends stands nowhere. */
export function lengthOf(
  { route, lengthM, extraM, from, to }: Pick<Link, 'route' | 'lengthM' | 'extraM' | 'from' | 'to'>,
  placeOf: (subject: string) => Point | null,
  assumptions: ChangedAssumptions,
): LinkLength | null {
  if (route && route.length > 1) return { lengthM: drawnM(route, extraM), how: 'drawn' };
  if (lengthM !== null) return { lengthM, how: 'typed' };
  const [a, b] = [placeOf(from), placeOf(to)];
  if (!a || !b) return null;
  return { lengthM: distanceM(a, b) * (1 + assumed(assumptions, 'link.detour')) + extraM, how: 'straight' };
}

/** The same of one link of a site. */
export const linkLength = (site: Site, link: Link): LinkLength | null =>
  lengthOf(link, (subject) => positionOf(site, subject), site.assumptions);

const LENGTH_WORDS: Readonly<Record<LinkLength['how'], string>> = {
  drawn: 'as drawn',
  typed: 'as typed',
  straight: 'straight line, with an allowance for corners',
};
/** “12.4 m”, or that nobody knows. */
export const sayLength = (length: LinkLength | null): string =>
  length === null ? 'length not known' : `${Number(length.lengthM.toFixed(1))} m`;
export const sayLengthHow = (length: LinkLength | null): string =>
  length === null ? 'not known' : LENGTH_WORDS[length.how];
