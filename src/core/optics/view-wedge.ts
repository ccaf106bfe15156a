import type { Point, Wall, WallMaterial } from '../base/plan-geometry.ts';
import type { DetailLevel } from './detail-levels.ts';
import type { LevelStretch } from './ground-view.ts';

const DEG = Math.PI / 180;
/** Fine enough that no door slips between two rays at twenty metres. */
const STEP_DEG = 1.5;
/** What one looks through. */
const CLEAR: ReadonlySet<WallMaterial> = new Set(['glass']);

/** A lens on the plan: where it stands, where it looks, what each stretch of the ground gets. */
export interface WedgeInput {
  readonly position: Point;
  readonly headingDeg: number;
  readonly hfovDeg: number;
  readonly stretches: readonly LevelStretch[];
  /** Nothing is drawn beyond. */
  readonly maxM: number;
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
export function viewWedge(input: WedgeInput, walls: readonly Wall[]): readonly WedgeShape[] {
  const { position, headingDeg, maxM } = input;
  const hfovDeg = Math.min(360, input.hfovDeg);
  const rays = Math.max(2, Math.ceil(hfovDeg / STEP_DEG) + 1);
  const sights = Array.from({ length: rays }, (_, at) => {
    const angleDeg = headingDeg - hfovDeg / 2 + (hfovDeg * at) / (rays - 1);
    return { angleDeg, farM: Math.min(maxM, sightM(position, angleDeg, walls)) };
  });
  return input.stretches.flatMap(({ level, fromM, toM }) => {
    const outer: number[] = [];
    const inner: number[] = [];
    for (const { angleDeg, farM } of sights) {
      const [cos, sin] = [Math.cos(angleDeg * DEG), Math.sin(angleDeg * DEG)];
      const far = Math.max(Math.min(toM, farM), Math.min(fromM, farM));
      const near = Math.min(fromM, farM);
      outer.push(far * cos, far * sin);
      inner.push(near * cos, near * sin);
    }
    const isEmpty = sights.every(({ farM }) => Math.min(toM, farM) - Math.min(fromM, farM) < 0.01);
    return isEmpty ? [] : [{ level, points: [...outer, ...reversed(inner)] }];
  });
}

/** The same points from the last to the first. */
const reversed = (points: readonly number[]): number[] =>
  points.flatMap((_, at) => (at % 2 === 0 ? points.slice(points.length - 2 - at, points.length - at) : []));
