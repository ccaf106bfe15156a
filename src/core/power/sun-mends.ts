import type { Verdict } from '../base/verdict.ts';
import { SOLAR_LIMITS } from './solar.ts';
import { dayLoadWh, marginOf, monthNames, type SunInput, sunYear } from './sun-budget.ts';
import type { SunFeed } from './sun-feed.ts';

/** A change that would mend a winter, with the feed as it would then be. */
export interface SunMend {
  readonly id: 'panel' | 'tilt' | 'events' | 'battery' | 'mains' | 'tilt-and-panel';
  readonly text: string;
  readonly sun: SunFeed;
  readonly verdict: Verdict;
}

/** Larger than anything that stands beside a camera: not offered. */
const LARGEST = { panelWp: 1000, batteryWh: 10_000 } as const;

const roundUp = (value: number, step: number): number => Math.ceil(value / step - 1e-9) * step;
/** What would mend it, each worked out anew; those that change the verdict first. Drawing that taps fix is not offered. */
export function sunMends(input: SunInput, isDrawnByTaps: boolean): readonly SunMend[] {
  const before = sunYear(input);
  if (before.verdict === 'ok') return [];
  const { sun } = input;
  const mends: SunMend[] = [];
  const offer = (id: SunMend['id'], text: string, changed: Partial<SunFeed>, drawn = input.drawnHoursPerDay): void => {
    const next = { ...sun, ...changed };
    if (next.panelWp > LARGEST.panelWp || next.batteryWh > LARGEST.batteryWh) return;
    mends.push({ id, text, sun: next, verdict: sunYear({ ...input, sun: next, drawnHoursPerDay: drawn }).verdict });
  };
  const steepest = bestTilt(input);
  if (steepest !== sun.tiltDeg) offer('tilt', `Tilt the panel to ${steepest}°`, { tiltDeg: steepest });
  const panelStep = sun.panelWp < 20 ? 1 : 5;
  if (before.panelWpNeeded !== null && before.panelWpNeeded > sun.panelWp) {
    const panelWp = roundUp(before.panelWpNeeded, panelStep);
    offer('panel', `Use a panel of ${panelWp} Wp`, { panelWp });
    const tilted = sunYear({ ...input, sun: { ...sun, tiltDeg: steepest } }).panelWpNeeded;
    if (steepest !== sun.tiltDeg && tilted !== null && tilted > sun.panelWp && roundUp(tilted, panelStep) < panelWp) {
      const smaller = roundUp(tilted, panelStep);
      offer('tilt-and-panel', `Use ${smaller} Wp at ${steepest}°`, { panelWp: smaller, tiltDeg: steepest });
    }
  }
  if (before.autonomyDays < SOLAR_LIMITS.comfortableDays) {
    const batteryWh = roundUp((sun.batteryWh * SOLAR_LIMITS.comfortableDays) / before.autonomyDays, 5);
    offer('battery', `Use a battery of ${batteryWh} Wh`, { batteryWh });
  }
  const hours = drawnHoursThatFit(input);
  if (!isDrawnByTaps && hours !== null && hours < sun.drawnHoursPerDay)
    offer('events', `Stream on events only, ${hours.toFixed(1)} h a day`, { drawnHoursPerDay: hours }, hours);
  const dark = [...before.shortMonths, ...before.unknownMonths].sort((a, b) => a - b);
  if (dark.length > 0)
    offer('mains', `Charge it from the mains in ${monthNames(dark)}`, {
      mainsMonths: [...new Set([...sun.mainsMonths, ...dark])].sort((a, b) => a - b),
    });
  const rank: Readonly<Record<Verdict, number>> = { ok: 0, tight: 1, unknown: 2, 'will-not-work': 3 };
  return mends.sort((a, b) => rank[a.verdict] - rank[b.verdict]);
}

/** A tilt is turned for a twentieth more, not for a digit behind the point. [A] */
const WORTH_TURNING = 1.05;

/** The tilt, in steps of 5°, at which the worst month that the sun must carry has most; the present one where none is worth it. */
function bestTilt(input: SunInput): number {
  const leastAt = (tiltDeg: number): number => {
    const { months } = sunYear({ ...input, sun: { ...input.sun, tiltDeg } });
    return Math.min(...months.filter(({ isOnMains }) => !isOnMains).flatMap((month) => marginOf(month) ?? []));
  };
  const now = leastAt(input.sun.tiltDeg);
  let best = { tiltDeg: input.sun.tiltDeg, least: now };
  for (let tiltDeg = 0; tiltDeg <= 90; tiltDeg += 5) {
    const least = leastAt(tiltDeg);
    if (least > best.least + 1e-9) best = { tiltDeg, least };
  }
  // Where the sun does not rise in the worst month, no tilt brings it.
  return best.least >= now * WORTH_TURNING && best.least > 1e-9 ? best.tiltDeg : input.sun.tiltDeg;
}

/** Hours of drawing, in steps of 0.1, that the worst month carries with room to spare; `null` when waiting alone is too much. */
function drawnHoursThatFit(input: SunInput): number | null {
  const year = sunYear(input);
  const worst = year.months[year.worstMonth - 1];
  if (!worst || year.unknownMonths.length > 0) return null;
  const at = (drawnHoursPerDay: number): number => dayLoadWh({ ...input, drawnHoursPerDay }, worst.month);
  const room = (worst.inWh ?? 0) / SOLAR_LIMITS.comfortableYield - at(0);
  const perHour = at(1) - at(0);
  if (room <= 0 || perHour <= 0) return null;
  const hours = Math.floor((room / perHour) * 10) / 10;
  return hours >= 0.1 ? Math.min(24, hours) : null;
}
