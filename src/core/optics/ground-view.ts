import { type DetailLevel, levelAt } from './detail-levels.ts';
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
