import { type Point, type Wall, wallLengthM } from '../../../base/plan-geometry.ts';
import { type Changed, type Handlers, itemOf, put, without, words } from '../../command-parts.ts';
import type { Site } from '../../site.ts';
import { nameOfSubject } from '../../subjects.ts';
import type { Link } from '../links/link.ts';
import { type DrawnPlan, isSheet } from './drawn-plan.ts';

export type PlanCommand =
  /** One thing of the plan found its place: a camera, a destination or gear. */
  | { readonly kind: 'place'; readonly subject: string; readonly position: Point | null }
  | { readonly kind: 'setPlan'; readonly plan: DrawnPlan; readonly what: string }
  | { readonly kind: 'putWall'; readonly wall: Wall }
  | { readonly kind: 'removeWall'; readonly wallId: string }
  /** The picture's true size was found: all that was placed on it keeps its place in the picture. */
  | { readonly kind: 'scalePlan'; readonly factor: number };

export const PLAN_COMMANDS: Handlers<PlanCommand> = {
  place: (site, { subject, position }) => place(site, subject, position),
  setPlan: (site, { plan, what }) => ({ site: { ...site, plan }, log: words('edit', 'site', `Plan: ${what}`) }),
  putWall: (site, { wall }) => {
    const isNew = !site.plan.walls.some(({ id }) => id === wall.id);
    const text = `Plan: ${wallWords(wall)} ${isNew ? 'drawn' : 'changed'}`;
    return {
      site: { ...site, plan: { ...site.plan, walls: put(site.plan.walls, wall) } },
      log: words('edit', 'site', text),
    };
  },
  removeWall: (site, { wallId }) => {
    const wall = itemOf(site.plan.walls, wallId, 'wall');
    const walls = without(site.plan.walls, wallId);
    return {
      site: { ...site, plan: { ...site.plan, walls } },
      log: words('edit', 'site', `Plan: ${wallWords(wall)} removed`),
    };
  },
  scalePlan: (site, { factor }) => scalePlan(site, factor),
};

/** “the hedge, 36.0 m of fence”. */
export const wallWords = (wall: Wall): string =>
  `${wall.name === '' ? '' : `${wall.name}, `}${wallLengthM(wall).toFixed(1)} m of ${wall.material}`;

function place(site: Site, subject: string, position: Point | null): Changed {
  const [kind, ...rest] = subject.split(':');
  const id = rest.join(':');
  const name = nameOfSubject(site, subject);
  const at = <T extends { readonly id: string; readonly position: Point | null }>(items: readonly T[]): readonly T[] =>
    items.map((item) => (item.id === id ? { ...item, position } : item));
  const placed =
    kind === 'camera'
      ? { ...site, cameras: at(site.cameras) }
      : kind === 'gear'
        ? { ...site, gear: at(site.gear) }
        : { ...site, destinations: at(site.destinations) };
  const where = position ? `${position.xM.toFixed(1)} m right, ${position.yM.toFixed(1)} m down` : 'off the plan';
  // A drawn cable ends where its camera or its gear stands: it goes along, and measures itself anew.
  const isDrawnTo = ({ route, from, to }: Link): boolean => route !== null && (from === subject || to === subject);
  const links =
    position === null || !site.links.some(isDrawnTo)
      ? site.links
      : site.links.map((link) => (isDrawnTo(link) ? withEndAt(link, subject, position) : link));
  return { site: { ...placed, links }, log: words('edit', subject, `${name} placed`, { at: where }) };
}

function withEndAt(link: Link, subject: string, position: Point): Link {
  const route = [...(link.route ?? [])];
  if (link.from === subject) route[0] = position;
  if (link.to === subject) route[route.length - 1] = position;
  return { ...link, route };
}

function scalePlan(site: Site, factor: number): Changed {
  const { picture } = site.plan;
  if (!picture || !isSheet(site.plan.widthM * factor, site.plan.heightM * factor))
    throw new RangeError(`factor: expected one that leaves a sheet, got ${factor}`);
  const point = ({ xM, yM }: Point): Point => ({ xM: xM * factor, yM: yM * factor });
  const moved = <T extends { readonly position: Point | null }>(items: readonly T[]): readonly T[] =>
    items.map((item) => (item.position ? { ...item, position: point(item.position) } : item));
  const metresPerPx = picture.metresPerPx * factor;
  return {
    site: {
      ...site,
      cameras: moved(site.cameras),
      destinations: moved(site.destinations),
      gear: moved(site.gear),
      links: site.links.map((link) => (link.route ? { ...link, route: link.route.map(point) } : link)),
      plan: {
        ...site.plan,
        widthM: site.plan.widthM * factor,
        heightM: site.plan.heightM * factor,
        picture: { ...picture, metresPerPx, isScaled: true },
        walls: site.plan.walls.map((wall) => ({ ...wall, from: point(wall.from), to: point(wall.to) })),
      },
    },
    log: words('edit', 'site', 'Plan: scale set', {
      picture: `${(picture.widthPx * metresPerPx).toFixed(2)} m wide`,
    }),
  };
}
