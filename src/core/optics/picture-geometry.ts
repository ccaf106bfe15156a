const DEG = Math.PI / 180;
const tanHalf = (fovDeg: number): number => Math.tan((fovDeg / 2) * DEG);

/** The pinhole model says what a lens does to about this width of view; beyond it, the measured view counts. [A] */
export const PINHOLE_VALID_TO_DEG = 100;

/** A pinhole has a view below 180°, a distance has a size: anything else is a mistake of the caller. */
function requireWithin(name: string, value: number, above: number, below: number): void {
  if (!(value > above && value < below))
    throw new RangeError(`${name}: expected between ${above} and ${below}, got ${value}`);
}

/**
 * Angle of view of a sensor's side behind a lens, degrees: 2·atan(side / 2f).
 * @param sideMm active width for the horizontal view, height for the vertical, mm
 * Source: pinhole model. 3.6 mm behind 3.6 mm → 53.13°.
 */
export function fieldOfView(sideMm: number, focalMm: number): number {
  requireWithin('sideMm', sideMm, 0, 100);
  requireWithin('focalMm', focalMm, 0, 2000);
  return (2 * Math.atan(sideMm / (2 * focalMm))) / DEG;
}

/** The same for an equidistant wide lens (r = f·θ): side / f in radians. */
export function equidistantFieldOfView(sideMm: number, focalMm: number): number {
  requireWithin('sideMm', sideMm, 0, 100);
  requireWithin('focalMm', focalMm, 0, 2000);
  return sideMm / focalMm / DEG;
}

/** Width of the scene at a distance, m: 2·d·tan(HFOV/2). */
export function sceneWidth(hfovDeg: number, distanceM: number): number {
  requireWithin('hfovDeg', hfovDeg, 0, 180);
  requireWithin('distanceM', distanceM, 0, 100_000);
  return 2 * distanceM * tanHalf(hfovDeg);
}

/** Pixels a metre gets at a distance on the optical axis. 3,840 px behind 100° at 4 m → 402.8 px/m. */
export const density = (hPixels: number, hfovDeg: number, distanceM: number): number =>
  hPixels / sceneWidth(hfovDeg, distanceM);

/** Distance up to which a density is reached on the axis, m: N / (2·p·tan(HFOV/2)). */
export function reach(hPixels: number, hfovDeg: number, pxPerM: number): number {
  requireWithin('hfovDeg', hfovDeg, 0, 180);
  requireWithin('pxPerM', pxPerM, 0, 1e6);
  return hPixels / (2 * pxPerM * tanHalf(hfovDeg));
}

/** Focal length that reaches a density at a distance, mm: w·d·p / N. */
export const focalFor = (sensorWidthMm: number, distanceM: number, pxPerM: number, hPixels: number): number =>
  (sensorWidthMm * distanceM * pxPerM) / hPixels;

/** Where a camera hangs and where it looks. */
export interface Aim {
  readonly mountHeightM: number;
  /** Below the horizontal; 90 looks straight down. */
  readonly tiltDownDeg: number;
}

/** How a target on the ground is seen from a camera that looks down. */
export interface TiltedView {
  /** Along the optical axis: what the density follows. */
  readonly depthM: number;
  readonly slantM: number;
  /** How steeply it is looked down upon; faces are lost beyond about 30°. [A] */
  readonly depressionDeg: number;
  readonly pxPerM: number;
}

/**
 * Density at a target that stands `groundDistanceM` away and is looked at in `targetHeightM`.
 * depth z = D·cos τ + (H − hₜ)·sin τ; p = N / (2·z·tan(HFOV/2)).
 */
export function densityTilted(
  { mountHeightM, tiltDownDeg }: Aim,
  optics: { readonly hPixels: number; readonly hfovDeg: number },
  target: { readonly groundDistanceM: number; readonly targetHeightM: number },
): TiltedView {
  requireWithin('hfovDeg', optics.hfovDeg, 0, 180);
  const drop = mountHeightM - target.targetHeightM;
  const depthM = target.groundDistanceM * Math.cos(tiltDownDeg * DEG) + drop * Math.sin(tiltDownDeg * DEG);
  return {
    depthM,
    slantM: Math.hypot(target.groundDistanceM, drop),
    depressionDeg: Math.atan2(drop, target.groundDistanceM) / DEG,
    pxPerM: optics.hPixels / (2 * depthM * tanHalf(optics.hfovDeg)),
  };
}

/**
 * Where the picture begins and ends on a level `targetHeightM` above the ground, m along it. `nearM` 0: straight down is
 * seen; `null`: that level is not seen at all. `farM` null: the horizon is in view.
 */
export function blindZone(
  { mountHeightM, tiltDownDeg }: Aim,
  vfovDeg: number,
  targetHeightM: number,
): { readonly nearM: number | null; readonly farM: number | null } {
  const drop = mountHeightM - targetHeightM;
  if (drop <= 0) return { nearM: null, farM: null };
  const lowerDeg = tiltDownDeg + vfovDeg / 2;
  const upperDeg = tiltDownDeg - vfovDeg / 2;
  const nearM = lowerDeg <= 0 ? null : lowerDeg >= 90 ? 0 : drop / Math.tan(lowerDeg * DEG);
  const farM = upperDeg <= 0 ? null : drop / Math.tan(upperDeg * DEG);
  return { nearM, farM };
}

/** What zooming gains: optical zoom brings density, digital zoom only enlarges what is there. */
export interface ZoomGain {
  readonly wideHfovDeg: number;
  readonly teleHfovDeg: number;
  readonly widePxPerM: number;
  readonly telePxPerM: number;
  readonly densityGain: number;
  /** Pixels of the sensor that a digital zoom shows across. */
  readonly realPixelsShown: number;
}

export function zoomGain(input: {
  readonly sensorWidthMm: number;
  readonly focalWideMm: number;
  readonly focalTeleMm: number;
  readonly hPixels: number;
  readonly distanceM: number;
  readonly digitalZoom: number;
}): ZoomGain {
  const wideHfovDeg = fieldOfView(input.sensorWidthMm, input.focalWideMm);
  const teleHfovDeg = fieldOfView(input.sensorWidthMm, input.focalTeleMm);
  return {
    wideHfovDeg,
    teleHfovDeg,
    widePxPerM: density(input.hPixels, wideHfovDeg, input.distanceM),
    telePxPerM: density(input.hPixels, teleHfovDeg, input.distanceM),
    densityGain: input.focalTeleMm / input.focalWideMm,
    realPixelsShown: input.hPixels / input.digitalZoom,
  };
}

/** What a turning head covers, and what it never sees, degrees. */
export function panCoverage(
  panRangeDeg: number,
  hfovDeg: number,
): { readonly coveredDeg: number; readonly deadDeg: number } {
  const coveredDeg = Math.min(360, panRangeDeg + hfovDeg);
  return { coveredDeg, deadDeg: 360 - coveredDeg };
}

/** How two lenses with axes some degrees apart share the view, degrees. */
export function dualLens(
  hfovADeg: number,
  hfovBDeg: number,
  axisSeparationDeg: number,
): { readonly spanDeg: number; readonly overlapDeg: number; readonly gapDeg: number } {
  const [a, b, s] = [hfovADeg / 2, hfovBDeg / 2, axisSeparationDeg];
  return {
    spanDeg: Math.max(a, s + b) - Math.min(-a, s - b),
    overlapDeg: Math.max(0, Math.min(a, s + b) - Math.max(-a, s - b)),
    gapDeg: Math.max(0, s - (a + b)),
  };
}

/** Reach of infrared light, m: irradiance falls with the square of the distance. */
export const infraredRange = (ratedRangeM: number, lightFactor: number): number => ratedRangeM * Math.sqrt(lightFactor);
