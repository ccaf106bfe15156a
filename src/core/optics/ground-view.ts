import { DETAIL_LEVELS, type DetailLevel, levelAt } from './detail-levels.ts';
import type { LensView } from './lens-view.ts';
import { type Aim, blindZone } from './picture-geometry.ts';
import { draw } from './projection.ts';

const DEG = Math.PI / 180;

/** How a point straight ahead of the camera is seen: density and steepness at a height above the ground. */
export interface SpotView {
  readonly pxPerM: number;
  /** Of what stands upright there, as letters on a plate do. */
  readonly uprightPxPerM: number;
  readonly level: DetailLevel | 'below-monitor';
  /** Along the ray: what light must travel. */
  readonly slantM: number;
  readonly depressionDeg: number;
  /** Inside the picture, from top to bottom and from side to side. */
  readonly isInView: boolean;
}

export function spotView(view: LensView, mounting: Aim, distanceM: number, heightM: number): SpotView {
  const { acrossPxPerM, uprightPxPerM, slantM, depressionDeg, isInView } = draw(view, mounting, {
    aheadM: distanceM,
    rightM: 0,
    heightM,
  });
  return { pxPerM: acrossPxPerM, uprightPxPerM, level: levelAt(acrossPxPerM), slantM, depressionDeg, isInView };
}

/**
 * Nearest distance at which something `heightM` above the ground is in the picture, m; 0 where it is seen straight below or
 * above, `null` where it is never seen. What hangs higher than the camera enters from above, and is seen from some distance on.
 */
export function nearEdgeM({ mountHeightM, tiltDownDeg }: Aim, vfovDeg: number, heightM: number): number | null {
  const drop = mountHeightM - heightM;
  const [upperDeg, lowerDeg] = [tiltDownDeg - vfovDeg / 2, tiltDownDeg + vfovDeg / 2];
  if (drop > 0) return blindZone({ mountHeightM, tiltDownDeg }, vfovDeg, heightM).nearM;
  if (lowerDeg < 0 || upperDeg > 0 || (drop < 0 && upperDeg === 0)) return null;
  return upperDeg <= -90 ? 0 : drop / Math.tan(upperDeg * DEG) + 0; // + 0: no minus sign before a zero
}

/** A stretch of the ground on which one level is reached. */
export interface LevelStretch {
  readonly level: DetailLevel;
  readonly fromM: number;
  readonly toM: number;
}

/**
 * Where along the ground each level ends, nearest first, within what is seen: density falls along the axis of the lens, and
 * where it falls below a level is looked for. A level begins where the next better one ends.
 * @param heightM at which the detail is wanted
 */
export function levelStretches(view: LensView, mounting: Aim, heightM: number): readonly LevelStretch[] {
  const { nearM, farM } = blindZone(mounting, view.vfovDeg, 0);
  if (nearM === null) return [];
  const ahead: LensView = { ...view, lens: { ...view.lens, axisDeg: 0 } };
  const densityAt = (distanceM: number): number => spotView(ahead, mounting, distanceM, heightM).pxPerM;
  const end = farM ?? Number.POSITIVE_INFINITY;
  const stretches: LevelStretch[] = [];
  let fromM = nearM;
  for (const { level, pxPerM } of [...DETAIL_LEVELS].reverse()) {
    const toM = Math.min(end, reachAlongM(view, mounting, heightM, pxPerM, densityAt));
    if (toM > fromM) {
      stretches.push({ level, fromM, toM });
      fromM = toM;
    }
  }
  return stretches;
}

/** [A] No picture is planned for what stands farther. */
const FARTHEST_M = 1e5;

/** Distance along the ground up to which a density is reached, m; `Infinity` where it never ends, 0 where it never is. */
function reachAlongM(
  { lens, focalPx }: LensView,
  mounting: Aim,
  heightM: number,
  pxPerM: number,
  densityAt: (distanceM: number) => number,
): number {
  if (lens.projection === 'pinhole') {
    // Depth z = D·cos τ + (H − hₜ)·sin τ is solved for D.
    const [tilt, depthM] = [mounting.tiltDownDeg * DEG, focalPx / pxPerM];
    const drop = mounting.mountHeightM - heightM;
    const cos = Math.cos(tilt);
    // Looking straight down, depth does not grow along the ground: a level holds everywhere or nowhere.
    if (cos < 1e-6) return depthM >= drop ? Number.POSITIVE_INFINITY : 0;
    return (depthM - drop * Math.sin(tilt)) / cos;
  }
  let [within, beyond] = [0, FARTHEST_M];
  if (densityAt(1e-6) < pxPerM) return 0;
  for (let round = 0; round < 60; round++) {
    const middle = (within + beyond) / 2;
    if (densityAt(middle) >= pxPerM) within = middle;
    else beyond = middle;
  }
  return within;
}
