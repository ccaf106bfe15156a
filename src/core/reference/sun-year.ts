import { atLeast, THRESHOLD_SLACK, type Verdict, worstVerdict } from '../base/verdict.ts';
import { SOLAR_LIMITS, tiltedDay } from '../power/solar.ts';

export interface SolarSystemInput {
  readonly latitudeDeg: number;
  readonly tiltDeg: number;
  /** K_T of each month. */
  readonly clearness: readonly number[];
  readonly panelWp: number;
  /** Of panel and charger together: 0.7. [A] */
  readonly performanceRatio: number;
  readonly batteryWh: number;
  readonly depthOfDischarge: number;
  readonly dischargeEfficiency: number;
  readonly loadW: number;
}

export interface SolarYear {
  /** kWh/m² a day, each month: hours of full sun. */
  readonly peakSunHours: readonly number[];
  readonly yieldWh: readonly number[];
  readonly loadWhPerDay: number;
  readonly autonomyDays: number;
  /** Months in which a day brings less than it takes, 1 to 12. */
  readonly deficitMonths: readonly number[];
  readonly worstMonth: number;
  /** Panel that the worst month would need; `null` where the sun does not rise in it. */
  readonly panelWpForWorstMonth: number | null;
  readonly verdict: Verdict;
}

/** A year of panel, battery and load, month by month. */
export function solarYear(input: SolarSystemInput): SolarYear {
  const { latitudeDeg, tiltDeg } = input;
  const { groundReflectance } = SOLAR_LIMITS;
  const peakSunHours = Array.from(
    { length: 12 },
    (_, at) =>
      tiltedDay({ latitudeDeg, month: at + 1, clearness: input.clearness[at] ?? 0, tiltDeg, groundReflectance })
        .tiltedKWh,
  );
  const yieldWh = peakSunHours.map((hours) => hours * input.panelWp * input.performanceRatio);
  const loadWhPerDay = 24 * input.loadW;
  const autonomyDays = (input.batteryWh * input.depthOfDischarge * input.dischargeEfficiency) / loadWhPerDay;
  const deficitMonths = yieldWh.flatMap((wattHours, at) =>
    wattHours < loadWhPerDay * (1 - THRESHOLD_SLACK) ? [at + 1] : [],
  );
  const worstHours = Math.min(...peakSunHours);
  const worstYield = Math.min(...yieldWh);
  const verdict = worstVerdict([
    deficitMonths.length > 0 ? 'will-not-work' : atLeast(worstYield, SOLAR_LIMITS.comfortableYield * loadWhPerDay, 0),
    atLeast(autonomyDays, SOLAR_LIMITS.comfortableDays, 0),
  ]);
  return {
    peakSunHours,
    yieldWh,
    loadWhPerDay,
    autonomyDays,
    deficitMonths,
    worstMonth: peakSunHours.indexOf(worstHours) + 1,
    panelWpForWorstMonth: worstHours < 1e-9 ? null : loadWhPerDay / (worstHours * input.performanceRatio),
    verdict,
  };
}

/** How long a battery carries a load, h. */
export const backupHours = (
  batteryWh: number,
  { depthOfDischarge, efficiency }: { readonly depthOfDischarge: number; readonly efficiency: number },
  loadW: number,
): number => (batteryWh * depthOfDischarge * efficiency) / loadW;
