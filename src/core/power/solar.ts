const DEG = Math.PI / 180;
/** Mean day of each month. Source: Duffie & Beckman, Solar Engineering of Thermal Processes, Table 1.6.1. */
const MEAN_DAYS = [17, 47, 75, 105, 135, 162, 198, 228, 258, 288, 318, 344] as const;
/** W/m². Source: as above, §1.2. */
const SOLAR_CONSTANT = 1367;
const JOULE_PER_KWH = 3.6e6;

const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

function requireLatitude(latitudeDeg: number): void {
  if (!(latitudeDeg >= -90 && latitudeDeg <= 90))
    throw new RangeError(`latitudeDeg: expected -90 to 90, got ${latitudeDeg}`);
}
function dayOf(month: number): number {
  const day = MEAN_DAYS[month - 1];
  if (day === undefined) throw new RangeError(`month: expected 1 to 12, got ${month}`);
  return day;
}

export interface ExtraterrestrialDay {
  readonly dayOfYear: number;
  readonly declinationDeg: number;
  /** 0 in the polar night, 180 under the midnight sun. */
  readonly sunsetHourAngleDeg: number;
  readonly h0MJ: number;
  readonly h0KWh: number;
}

/** Hour angle of sunset on a surface at this latitude, degrees. */
const sunsetAngle = (latitudeDeg: number, declinationDeg: number): number =>
  Math.acos(clamp(-Math.tan(latitudeDeg * DEG) * Math.tan(declinationDeg * DEG), -1, 1)) / DEG;

/**
 * Daily energy of the sun above the air on a flat square metre, mean day of a month.
 * Source: Duffie & Beckman eq. 1.6.1 (declination), 1.6.10 (sunset), 1.10.3 (H₀).
 */
export function extraterrestrialDay(latitudeDeg: number, month: number): ExtraterrestrialDay {
  requireLatitude(latitudeDeg);
  const dayOfYear = dayOf(month);
  const declinationDeg = 23.45 * Math.sin(((360 * (284 + dayOfYear)) / 365) * DEG);
  const sunsetHourAngleDeg = sunsetAngle(latitudeDeg, declinationDeg);
  const [lat, dec, sunset] = [latitudeDeg * DEG, declinationDeg * DEG, sunsetHourAngleDeg * DEG];
  const nearness = 1 + 0.033 * Math.cos(((360 * dayOfYear) / 365) * DEG);
  const light = Math.cos(lat) * Math.cos(dec) * Math.sin(sunset) + sunset * Math.sin(lat) * Math.sin(dec);
  const joule = Math.max(0, ((86_400 * SOLAR_CONSTANT) / Math.PI) * nearness * light);
  return { dayOfYear, declinationDeg, sunsetHourAngleDeg, h0MJ: joule / 1e6, h0KWh: joule / JOULE_PER_KWH };
}

/** Energy on a tilted square metre that faces the equator, and how it comes about; `null` without sun. */
export interface TiltedDay {
  readonly horizontalKWh: number;
  readonly diffuseShare: number | null;
  readonly beamFactor: number | null;
  readonly factor: number | null;
  readonly tiltedKWh: number;
}

/** Source: Duffie & Beckman eq. 2.12.1 (Erbs: diffuse share), 2.19.3 and 2.19.4 (R_b, R). */
export function tiltedDay(input: {
  readonly latitudeDeg: number;
  readonly month: number;
  /** K_T: share of the light that passes the air. */
  readonly clearness: number;
  readonly tiltDeg: number;
  readonly groundReflectance: number;
}): TiltedDay {
  const { latitudeDeg, tiltDeg, groundReflectance } = input;
  const day = extraterrestrialDay(latitudeDeg, input.month);
  const horizontalKWh = input.clearness * day.h0KWh;
  if (horizontalKWh < 1e-9) return { horizontalKWh, diffuseShare: null, beamFactor: null, factor: null, tiltedKWh: 0 };
  const k = clamp(input.clearness, 0.3, 0.8);
  const diffuseShare =
    day.sunsetHourAngleDeg <= 81.4
      ? 1.391 - 3.56 * k + 4.189 * k ** 2 - 2.137 * k ** 3
      : 1.311 - 3.022 * k + 3.427 * k ** 2 - 1.821 * k ** 3;
  const isNorth = latitudeDeg >= 0;
  const facing = (isNorth ? latitudeDeg - tiltDeg : latitudeDeg + tiltDeg) * DEG;
  const [lat, dec, sunset] = [latitudeDeg * DEG, day.declinationDeg * DEG, day.sunsetHourAngleDeg * DEG];
  const sunsetTilted = Math.min(sunset, sunsetAngle(facing / DEG, day.declinationDeg) * DEG);
  const lightOn = (angle: number, until: number): number =>
    Math.cos(angle) * Math.cos(dec) * Math.sin(until) + until * Math.sin(angle) * Math.sin(dec);
  const beamFactor = Math.max(0, lightOn(facing, sunsetTilted) / lightOn(lat, sunset));
  const factor =
    (1 - diffuseShare) * beamFactor +
    (diffuseShare * (1 + Math.cos(tiltDeg * DEG))) / 2 +
    (groundReflectance * (1 - Math.cos(tiltDeg * DEG))) / 2;
  return { horizontalKWh, diffuseShare, beamFactor, factor, tiltedKWh: horizontalKWh * factor };
}

/** [A] Steps of a day in which the beam is added up, degrees of hour angle. */
const STEP_DEG = 2;
/** Share of the beam that a clear sky lets through at air mass m: 0.7^(m^0.678). Source: Meinel & Meinel, Applied Solar Energy. */
const passing = (airMass: number): number => 0.7 ** (airMass ** 0.678);
/** Source: Kasten & Young 1989: the way through the air against that of the zenith, at an elevation in degrees. */
const airMassAt = (elevationDeg: number): number =>
  1 / (Math.sin(elevationDeg * DEG) + 0.50572 * (elevationDeg + 6.07995) ** -1.6364);

/** Elevation of the sun at noon on the mean day of a month, degrees; below 0 it does not rise. */
export const noonElevationDeg = (latitudeDeg: number, month: number): number =>
  90 - Math.abs(latitudeDeg - extraterrestrialDay(latitudeDeg, month).declinationDeg);

/** Beam of a day without a cloud on a tilted square metre that faces the equator, kWh: no month brings more. */
export function clearSkyBeamKWh(latitudeDeg: number, month: number, tiltDeg: number): number {
  const { dayOfYear, declinationDeg, sunsetHourAngleDeg } = extraterrestrialDay(latitudeDeg, month);
  const [lat, dec] = [latitudeDeg * DEG, declinationDeg * DEG];
  const facing = (latitudeDeg >= 0 ? latitudeDeg - tiltDeg : latitudeDeg + tiltDeg) * DEG;
  const normal = SOLAR_CONSTANT * (1 + 0.033 * Math.cos(((360 * dayOfYear) / 365) * DEG));
  const steps = Math.ceil(sunsetHourAngleDeg / STEP_DEG);
  let watts = 0;
  for (let at = 0; at < steps; at++) {
    const hour = ((at + 0.5) / steps) * sunsetHourAngleDeg * DEG;
    const height = Math.sin(lat) * Math.sin(dec) + Math.cos(lat) * Math.cos(dec) * Math.cos(hour);
    const onPanel = Math.sin(facing) * Math.sin(dec) + Math.cos(facing) * Math.cos(dec) * Math.cos(hour);
    if (height > 0 && onPanel > 0) watts += normal * passing(airMassAt(Math.asin(height) / DEG)) * onPanel;
  }
  // Morning and afternoon are alike; 15° of hour angle are an hour.
  return steps === 0 ? 0 : (2 * watts * (sunsetHourAngleDeg / steps / 15)) / 1000;
}

/** [A] Below this at noon no model of means holds: hills, trees and the air decide. */
export const LOWEST_NOON_DEG = 5;

/**
 * What a month brings on a panel, kWh/m² a day: the mean of the model, its beam no more than a clear sky gives. `null` where
 * the sun rises and stays below `LOWEST_NOON_DEG`: there no number is honest. Where it does not rise, nothing comes.
 */
export function plannedDayKWh(input: Parameters<typeof tiltedDay>[0]): number | null {
  const noonDeg = noonElevationDeg(input.latitudeDeg, input.month);
  if (noonDeg <= 0) return 0;
  if (noonDeg < LOWEST_NOON_DEG) return null;
  const { horizontalKWh, diffuseShare, beamFactor, tiltedKWh } = tiltedDay(input);
  const beamKWh = (1 - (diffuseShare ?? 0)) * horizontalKWh * (beamFactor ?? 0);
  return tiltedKWh - Math.max(0, beamKWh - clearSkyBeamKWh(input.latitudeDeg, input.month, input.tiltDeg));
}

/** [A] Light of the ground around; a third more than the load in the worst month; three dark days. */
export const SOLAR_LIMITS = { groundReflectance: 0.2, comfortableYield: 1.3, comfortableDays: 3 } as const;
