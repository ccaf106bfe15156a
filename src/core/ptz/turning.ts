// Where a head looks, in degrees and in the numbers of its protocol. Source: ONVIF PTZ §5.7 (generic spaces); that the
// numbers go evenly with the degrees is an assumption until it was measured: the standard leaves the unit to the device.

export interface DegreeRange {
  readonly minDeg: number;
  readonly maxDeg: number;
}

export interface Clamped {
  readonly norm: number;
  /** It lay beyond an end, and was taken to it. */
  readonly clamped: boolean;
}

const clampNorm = (norm: number): Clamped => ({ norm: Math.min(1, Math.max(-1, norm)), clamped: Math.abs(norm) > 1 });

/** `n = 2(deg − min) ÷ (max − min) − 1`. 90° of −180…180 → 0.5. */
export const normOfDegrees = (deg: number, { minDeg, maxDeg }: DegreeRange): Clamped =>
  clampNorm((2 * (deg - minDeg)) / (maxDeg - minDeg) - 1);

/** The inverse. 0.5 of −180…180 → 90°. */
export const degreesOfNorm = (norm: number, { minDeg, maxDeg }: DegreeRange): number =>
  minDeg + ((norm + 1) / 2) * (maxDeg - minDeg);

/** A move by so many degrees in the space of translations: `n = 2Δ ÷ (max − min)` [A]. */
export const translationOfDegrees = (deltaDeg: number, { minDeg, maxDeg }: DegreeRange): Clamped =>
  clampNorm((2 * deltaDeg) / (maxDeg - minDeg));

const DEG = 180 / Math.PI;

/** Focal length in pixels of a pinhole. */
const focalPx = (width: number, hfovDeg: number): number => width / 2 / Math.tan(hfovDeg / 2 / DEG);

/**
 * By how much to turn so that a point of the picture comes to its middle; right and up are positive. Good for small tilt.
 * @param at pixels from the upper left
 */
export function turnToCentre(
  at: { readonly x: number; readonly y: number },
  picture: { readonly width: number; readonly height: number; readonly hfovDeg: number },
): { readonly panDeg: number; readonly tiltDeg: number } {
  const f = focalPx(picture.width, picture.hfovDeg);
  return {
    panDeg: Math.atan((at.x - picture.width / 2) / f) * DEG,
    tiltDeg: -Math.atan((at.y - picture.height / 2) / f) * DEG,
  };
}

/**
 * By how much the head panned between two pictures of one thing that stands still; to the right is positive. A point lies in
 * the direction `atan2(u, f·cos t − v·sin t)` about the axis that it pans on: looking down, the same way in the picture is a
 * larger turn than at the horizon. Source: pinhole; t is the tilt of the optical axis, above the horizon positive.
 * @param before and @param after pixels from the upper left
 */
export function panBetween(
  before: { readonly x: number; readonly y: number },
  after: { readonly x: number; readonly y: number },
  { width, height, hfovDeg }: { readonly width: number; readonly height: number; readonly hfovDeg: number },
  tiltDeg: number,
): number {
  const f = focalPx(width, hfovDeg);
  const tilt = tiltDeg / DEG;
  const bearing = ({ x, y }: { readonly x: number; readonly y: number }): number =>
    Math.atan2(x - width / 2, f * Math.cos(tilt) - (height / 2 - y) * Math.sin(tilt)) * DEG;
  return bearing(before) - bearing(after);
}

/** Angle of view at a zoom: the focal length grows with it. */
export const viewAtZoom = (hfovDeg: number, zoom: number): number =>
  2 * Math.atan(Math.tan(hfovDeg / 2 / DEG) / zoom) * DEG;
