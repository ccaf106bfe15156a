import { atLeast, THRESHOLD_SLACK, type Verdict, worstVerdict } from '../base/verdict.ts';
import { extraterrestrialDay, plannedDayKWh, SOLAR_LIMITS } from './solar.ts';
import type { SunFeed } from './sun-feed.ts';

/** [A] Share of a battery that may be used before it ages of it. */
export const LITHIUM = { isLithium: true, depthOfDischarge: 0.8 } as const;
export const LEAD = { isLithium: false, depthOfDischarge: 0.5 } as const;

/** What a camera takes, by what it does. */
export interface CameraLoad {
  readonly dayW: number;
  readonly nightW: number;
  /** Waiting for an event. */
  readonly standbyW: number;
}

export interface SunInput {
  readonly sun: SunFeed;
  readonly load: CameraLoad;
  readonly drawnHoursPerDay: number;
  readonly latitudeDeg: number;
  readonly clearness: readonly number[];
  readonly performance: number;
  readonly discharge: number;
}

export interface SunMonth {
  /** 1 to 12. */
  readonly month: number;
  /** `null` where the sun stays too low for a number. */
  readonly inWh: number | null;
  readonly outWh: number;
  readonly isOnMains: boolean;
  readonly isShort: boolean;
}

export interface SunYear {
  readonly months: readonly SunMonth[];
  readonly shortMonths: readonly number[];
  /** By sun, and nobody can say what it brings. */
  readonly unknownMonths: readonly number[];
  /** Of those that are known and not on the mains. */
  readonly worstMonth: number;
  /** Dark days that the battery carries, in the month that takes most. */
  readonly autonomyDays: number;
  /** Panel that carries the worst month with room to spare; `null` where the sun does not rise, or no number is honest. */
  readonly panelWpNeeded: number | null;
  /** Hours until an unfed battery is empty when somebody draws the stream without a break, at night. */
  readonly hoursOnConstantDraw: number;
  readonly verdict: Verdict;
}

/** What a day takes in a month: drawn by day and by night as the light goes, waiting for the rest. */
export function dayLoadWh({ load, drawnHoursPerDay, latitudeDeg }: SunInput, month: number): number {
  const lightHours = (2 * extraterrestrialDay(latitudeDeg, month).sunsetHourAngleDeg) / 15;
  const drawnW = (load.dayW * lightHours + load.nightW * (24 - lightHours)) / 24;
  return drawnHoursPerDay * drawnW + (24 - drawnHoursPerDay) * load.standbyW;
}

const MONTHS_OF_YEAR = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] as const;

/** What a day brings against what it takes; a day that takes nothing is carried by any. */
export const marginOf = ({ inWh, outWh }: SunMonth): number | null =>
  inWh === null ? null : outWh === 0 ? Number.POSITIVE_INFINITY : inWh / outWh;

/** A year of a panel, a battery and a camera, month by month. */
export function sunYear(input: SunInput): SunYear {
  const { sun, load, latitudeDeg } = input;
  const { groundReflectance } = SOLAR_LIMITS;
  const months = MONTHS_OF_YEAR.map((month): SunMonth => {
    const clearness = input.clearness[month - 1] ?? 0;
    const day = plannedDayKWh({ latitudeDeg, month, clearness, tiltDeg: sun.tiltDeg, groundReflectance });
    const inWh = day === null ? null : day * sun.panelWp * (1 - sun.shade) * input.performance;
    const outWh = dayLoadWh(input, month);
    const isOnMains = sun.mainsMonths.includes(month);
    const isShort = !isOnMains && inWh !== null && inWh < outWh * (1 - THRESHOLD_SLACK);
    return { month, inWh, outWh, isOnMains, isShort };
  });
  const bySun = months.filter(({ isOnMains }) => !isOnMains);
  const counted = bySun.length > 0 ? bySun : months;
  const worst = counted.reduce((a, b) =>
    (marginOf(b) ?? Number.POSITIVE_INFINITY) < (marginOf(a) ?? Number.POSITIVE_INFINITY) ? b : a,
  );
  const usableWh = sun.batteryWh * sun.depthOfDischarge * input.discharge;
  const autonomyDays = usableWh / Math.max(...counted.map(({ outWh }) => outWh), 1e-9);
  const perWp = (worst.inWh ?? 0) / sun.panelWp;
  const shortMonths = months.filter(({ isShort }) => isShort).map(({ month }) => month);
  const unknownMonths = bySun.filter(({ inWh }) => inWh === null).map(({ month }) => month);
  return {
    months,
    shortMonths,
    unknownMonths,
    worstMonth: worst.month,
    autonomyDays,
    panelWpNeeded:
      perWp < 1e-9 || unknownMonths.length > 0 ? null : (worst.outWh * SOLAR_LIMITS.comfortableYield) / perWp,
    hoursOnConstantDraw: usableWh / load.nightW,
    verdict:
      bySun.length === 0
        ? 'ok'
        : worstVerdict([
            shortMonths.length > 0
              ? 'will-not-work'
              : atLeast(marginOf(worst) ?? Number.POSITIVE_INFINITY, SOLAR_LIMITS.comfortableYield, 0),
            unknownMonths.length > 0 ? 'unknown' : 'ok',
            atLeast(autonomyDays, SOLAR_LIMITS.comfortableDays, 0),
          ]),
  };
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;

/** Months as one says them: a stretch by its ends, over the turn of the year too. Nov to Jan; Feb, Apr. */
export function monthNames(months: readonly number[]): string {
  const sorted = [...months].sort((a, b) => a - b);
  const has = new Set(sorted);
  const firsts = sorted.filter((month) => !has.has(month === 1 ? 12 : month - 1));
  const [first] = firsts;
  if (firsts.length !== 1 || first === undefined || sorted.length < 2)
    return sorted.map((month) => MONTHS[month - 1]).join(', ');
  const last = ((first + sorted.length - 2) % 12) + 1;
  return `${MONTHS[first - 1]} ${sorted.length === 2 ? 'and' : 'to'} ${MONTHS[last - 1]}`;
}
