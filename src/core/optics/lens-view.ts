import { DETAIL_LEVELS, type DetailLevel, levelAt } from './detail-levels.ts';
import type { Lens } from './lens.ts';
import {
  type Aim,
  blindZone,
  densityTilted,
  equidistantFieldOfView,
  fieldOfView,
  PINHOLE_VALID_TO_DEG,
} from './picture-geometry.ts';

const DEG = Math.PI / 180;

/** What a lens sees at one setting of its zoom. */
export interface LensView {
  readonly lens: Lens;
  /** 1 is the wide end. */
  readonly zoom: number;
  readonly hfovDeg: number;
  readonly vfovDeg: number;
  /** Wider than the pinhole model is good for, and nobody measured it: numbers are a guess then. */
  readonly isBeyondModel: boolean;
  /** Pixels that a metre gets one metre deep: what falls with the distance. */
  readonly pxPerMAt1m: number;
}

export const zoomRange = ({ focalWideMm, focalTeleMm }: Lens): number => focalTeleMm / focalWideMm;

/** Angles at a zoom. A measured wide view counts before what the focal length says, and narrows as the tangent does. */
export function lensView(lens: Lens, zoom: number): LensView {
  const set = Math.min(Math.max(1, zoom), zoomRange(lens));
  const focalMm = lens.focalWideMm * set;
  const measured = lens.measuredHfovDeg;
  if (lens.projection === 'equidistant') {
    const hfovDeg = measured === null ? equidistantFieldOfView(lens.sensorWidthMm, focalMm) : measured / set;
    const vfovDeg = (hfovDeg * lens.sensorHeightMm) / lens.sensorWidthMm;
    const isBeyondModel = measured === null && hfovDeg > PINHOLE_VALID_TO_DEG;
    return { lens, zoom: set, hfovDeg, vfovDeg, isBeyondModel, pxPerMAt1m: lens.widthPx / (hfovDeg * DEG) };
  }
  const hfovDeg =
    measured === null
      ? fieldOfView(lens.sensorWidthMm, focalMm)
      : (2 * Math.atan(Math.tan((Math.min(measured, 179) / 2) * DEG) / set)) / DEG;
  const half = Math.tan((hfovDeg / 2) * DEG);
  const vfovDeg = (2 * Math.atan((half * lens.sensorHeightMm) / lens.sensorWidthMm)) / DEG;
  const isBeyondModel = measured === null && hfovDeg > PINHOLE_VALID_TO_DEG;
  return { lens, zoom: set, hfovDeg, vfovDeg, isBeyondModel, pxPerMAt1m: lens.widthPx / (2 * half) };
}

/** The longest zoom at which a zone of this width is still wholly in view at a depth. */
export function zoomForWidth(lens: Lens, widthM: number, depthM: number): number {
  const wide = lensView(lens, 1);
  const across = lens.widthPx / (wide.pxPerMAt1m / Math.max(depthM, 0.01));
  return Math.min(zoomRange(lens), Math.max(1, across / widthM));
}

/** How a point of the ground is seen: density and steepness at a height above it. */
export interface SpotView {
  readonly pxPerM: number;
  readonly level: DetailLevel | 'below-monitor';
  readonly depthM: number;
  readonly depressionDeg: number;
  /** Width of the scene there. */
  readonly widthM: number;
  /** Inside the picture, from top to bottom and from side to side. */
  readonly isInView: boolean;
}

/**
 * A point straight ahead of the camera, seen through one of its lenses. Where the lens looks aside, the pixels that its
 * edge stretches are not counted as detail: density is that of the same depth on its axis.
 */
export function spotView(view: LensView, mounting: Aim, distanceM: number, heightM: number): SpotView {
  const { depthM, depressionDeg } = densityTilted(
    mounting,
    { hPixels: view.lens.widthPx, hfovDeg: Math.min(view.hfovDeg, 179) },
    { groundDistanceM: distanceM, targetHeightM: heightM },
  );
  const pxPerM = depthM > 0 ? view.pxPerMAt1m / depthM : 0;
  return {
    pxPerM,
    level: levelAt(pxPerM),
    depthM,
    depressionDeg,
    widthM: pxPerM > 0 ? view.lens.widthPx / pxPerM : 0,
    isInView:
      depthM > 0 &&
      Math.abs(depressionDeg - mounting.tiltDownDeg) <= view.vfovDeg / 2 + 1e-9 &&
      Math.abs(view.lens.axisDeg) <= view.hfovDeg / 2 + 1e-9,
  };
}

/** [A] Aside of the axis by more than this a view has no width worth a number. */
const WIDEST_ASIDE_DEG = 80;

/** Width of the scene across the axis of the camera that lenses see together, m at a depth; gaps between them count. */
export function jointWidthM(views: readonly LensView[], depthM: number): number {
  const aside = (deg: number): number => Math.tan(Math.min(WIDEST_ASIDE_DEG, Math.max(-WIDEST_ASIDE_DEG, deg)) * DEG);
  const lefts = views.map(({ lens, hfovDeg }) => aside(lens.axisDeg - hfovDeg / 2));
  const rights = views.map(({ lens, hfovDeg }) => aside(lens.axisDeg + hfovDeg / 2));
  return depthM * (Math.max(...rights) - Math.min(...lefts));
}

/** A stretch of the ground on which one level is reached. */
export interface LevelStretch {
  readonly level: DetailLevel;
  readonly fromM: number;
  readonly toM: number;
}

/**
 * Where along the ground each level ends, nearest first, within what is seen. Depth z = D·cos τ + (H − hₜ)·sin τ is solved
 * for D; a level begins where the next better one ends.
 * @param heightM at which the detail is wanted
 */
export function levelStretches(view: LensView, mounting: Aim, heightM: number): readonly LevelStretch[] {
  const { nearM, farM } = blindZone(mounting, view.vfovDeg, 0);
  if (nearM === null) return [];
  const tilt = mounting.tiltDownDeg * DEG;
  const drop = mounting.mountHeightM - heightM;
  const end = farM ?? Number.POSITIVE_INFINITY;
  const stretches: LevelStretch[] = [];
  let fromM = nearM;
  for (const { level, pxPerM } of [...DETAIL_LEVELS].reverse()) {
    const depthM = view.pxPerMAt1m / pxPerM;
    // Looking straight down, depth does not grow along the ground: a level holds everywhere or nowhere.
    const cos = Math.cos(tilt);
    const reachM = cos < 1e-6 ? (depthM >= drop ? end : 0) : (depthM - drop * Math.sin(tilt)) / cos;
    const toM = Math.min(end, reachM);
    if (toM > fromM) {
      stretches.push({ level, fromM, toM });
      fromM = toM;
    }
  }
  return stretches;
}
