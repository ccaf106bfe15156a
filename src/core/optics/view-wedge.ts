import type { Point, Wall, WallMaterial } from '../base/plan-geometry.ts';
import { DETAIL_LEVELS, type DetailLevel } from './detail-levels.ts';
import { footprint, type LensOverGround } from './footprint.ts';

const DEG = Math.PI / 180;
/** What one looks through. */
const CLEAR: ReadonlySet<WallMaterial> = new Set(['glass']);

/** A lens on the plan: where it stands, where its camera looks, and how. */
export interface WedgeInput extends LensOverGround {
  readonly position: Point;
  readonly headingDeg: number;
}

/** One level of what a lens sees, as a closed shape: x and y in turn, m, from the camera. */
export interface WedgeShape {
  readonly level: DetailLevel;
  readonly points: readonly number[];
}

/** Distance along a ray to the first wall, m; `Infinity` when nothing stands in the way. */
export function sightM(from: Point, angleDeg: number, walls: readonly Wall[]): number {
  const [dx, dy] = [Math.cos(angleDeg * DEG), Math.sin(angleDeg * DEG)];
  let nearest = Number.POSITIVE_INFINITY;
  for (const { from: a, to: b, material } of walls) {
    if (CLEAR.has(material)) continue;
    const [ex, ey] = [b.xM - a.xM, b.yM - a.yM];
    const across = dx * ey - dy * ex;
    if (Math.abs(across) < 1e-12) continue;
    const [px, py] = [a.xM - from.xM, a.yM - from.yM];
    const along = (px * ey - py * ex) / across;
    const share = (px * dy - py * dx) / across;
    // A camera that hangs on a wall is not blinded by it: nearer than a hand's breadth does not count.
    if (along > 0.1 && along < nearest && share >= -1e-9 && share <= 1 + 1e-9) nearest = along;
  }
  return nearest;
}

/** What a lens sees of the plan, level by level, cut off where walls stand. */
export function viewWedge(
  { position, headingDeg, ...over }: WedgeInput,
  walls: readonly Wall[],
): readonly WedgeShape[] {
  const rays = footprint(over).map(({ bearingDeg, stretches }) => {
    const angleDeg = headingDeg + bearingDeg;
    const sight = sightM(position, angleDeg, walls);
    const [cos, sin] = [Math.cos(angleDeg * DEG), Math.sin(angleDeg * DEG)];
    const seen = stretches.filter(({ fromM }) => fromM < sight);
    return { cos, sin, stretches: seen.map((one) => ({ ...one, toM: Math.min(one.toM, sight) })) };
  });
  return DETAIL_LEVELS.toReversed().flatMap(({ level }) => {
    const shapes: WedgeShape[] = [];
    let outer: number[] = [];
    let inner: number[] = [];
    // A level that is not seen along a ray ends its shape; behind a wall it may begin another.
    const close = (): void => {
      if (outer.length > 2) shapes.push({ level, points: [...outer, ...reversed(inner)] });
      [outer, inner] = [[], []];
    };
    for (const { cos, sin, stretches } of rays) {
      const own = stretches.find((one) => one.level === level && one.toM - one.fromM >= LEAST_DRAWN_M);
      if (!own) {
        close();
        continue;
      }
      outer.push(own.toM * cos, own.toM * sin);
      inner.push(own.fromM * cos, own.fromM * sin);
    }
    close();
    return shapes;
  });
}

/** Less is no surface. */
const LEAST_DRAWN_M = 0.01;

/** The same points from the last to the first. */
const reversed = (points: readonly number[]): number[] =>
  points.flatMap((_, at) => (at % 2 === 0 ? points.slice(points.length - 2 - at, points.length - at) : []));
