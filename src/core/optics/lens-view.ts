import type { Lens } from './lens.ts';
import { equidistantFieldOfView, fieldOfView, PINHOLE_VALID_TO_DEG } from './picture-geometry.ts';

const DEG = Math.PI / 180;

/** What a lens sees at one setting of its zoom. */
export interface LensView {
  readonly lens: Lens;
  /** 1 is the wide end. */
  readonly zoom: number;
  readonly hfovDeg: number;
  readonly vfovDeg: number;
  /** Wider than the model of its projection is good for: numbers are a guess then. */
  readonly isBeyondModel: boolean;
  /** Focal length in pixels of its width: F of its projection. */
  readonly focalPx: number;
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
    return { lens, zoom: set, hfovDeg, vfovDeg, isBeyondModel, focalPx: lens.widthPx / (hfovDeg * DEG) };
  }
  const hfovDeg =
    measured === null
      ? fieldOfView(lens.sensorWidthMm, focalMm)
      : (2 * Math.atan(Math.tan((Math.min(measured, 179) / 2) * DEG) / set)) / DEG;
  const half = Math.tan((hfovDeg / 2) * DEG);
  const vfovDeg = (2 * Math.atan((half * lens.sensorHeightMm) / lens.sensorWidthMm)) / DEG;
  // Wider than this no lens draws straight: measuring its width does not say what it does with its rim.
  const isBeyondModel = hfovDeg > PINHOLE_VALID_TO_DEG;
  return { lens, zoom: set, hfovDeg, vfovDeg, isBeyondModel, focalPx: lens.widthPx / (2 * half) };
}

/** The longest zoom at which something still holds that holds at the wide end; 1 where it does not hold there either. */
export function longestZoom(lens: Lens, holds: (view: LensView) => boolean): number {
  const longest = zoomRange(lens);
  if (longest === 1 || !holds(lensView(lens, 1))) return 1;
  if (holds(lensView(lens, longest))) return longest;
  let [within, beyond] = [1, longest];
  for (let round = 0; round < 40; round++) {
    const middle = (within + beyond) / 2;
    if (holds(lensView(lens, middle))) within = middle;
    else beyond = middle;
  }
  return within;
}
