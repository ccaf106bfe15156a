import type { Lens } from './lens.ts';
import { equidistantFieldOfView, fieldOfView } from './picture-geometry.ts';

/** What cannot be true of a lens, at the field that says it. */
export interface LensProblem {
  readonly field: 'focalWideMm' | 'focalTeleMm' | 'measuredHfovDeg' | 'heightPx';
  readonly text: string;
}

/** [A] Wider than this no straight lens draws; a bending one sees a little behind itself at most. */
const WIDEST_DEG = { pinhole: 140, equidistant: 220 } as const;
/** [A] Distortion makes a real view wider than computed, by this factor at most. */
const MEASURED_OVER_COMPUTED = 1.4;

/** The first thing about a lens that its sensor does not allow; `null` when all may be true. */
export function lensProblem(lens: Lens): LensProblem | null {
  const { focalWideMm, focalTeleMm, sensorWidthMm, sensorHeightMm, projection, measuredHfovDeg } = lens;
  if (focalTeleMm < focalWideMm)
    return {
      field: 'focalTeleMm',
      text: `The long end (${focalTeleMm} mm) lies below the wide end (${focalWideMm} mm).`,
    };
  const hfovDeg =
    projection === 'pinhole'
      ? fieldOfView(sensorWidthMm, focalWideMm)
      : equidistantFieldOfView(sensorWidthMm, focalWideMm);
  if (hfovDeg > WIDEST_DEG[projection])
    return {
      field: 'focalWideMm',
      text: `${focalWideMm} mm in front of a sensor ${sensorWidthMm} mm wide would see ${Math.round(hfovDeg)}°: ${projection === 'pinhole' ? 'a rectilinear lens ends at 140°. Is it a fisheye?' : 'no lens sees that much.'}`,
    };
  if (measuredHfovDeg !== null && measuredHfovDeg > Math.max(hfovDeg * MEASURED_OVER_COMPUTED, hfovDeg + 15))
    return {
      field: 'measuredHfovDeg',
      text: `${measuredHfovDeg}° is wider than sensor and focal length allow: they give ${Math.round(hfovDeg)}°.`,
    };
  const [pixelAspect, sensorAspect] = [lens.widthPx / lens.heightPx, sensorWidthMm / sensorHeightMm];
  if (Math.abs(pixelAspect / sensorAspect - 1) > 0.12)
    return {
      field: 'heightPx',
      text: `${lens.widthPx} × ${lens.heightPx} has another aspect ratio than the sensor, ${sensorWidthMm} × ${sensorHeightMm} mm: enter the part of the sensor that is used.`,
    };
  return null;
}
