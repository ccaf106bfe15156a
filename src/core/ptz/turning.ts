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

/** Angle of view at a zoom: the focal length grows with it. */
export const viewAtZoom = (hfovDeg: number, zoom: number): number =>
  2 * Math.atan(Math.tan(hfovDeg / 2 / DEG) / zoom) * DEG;
