import { expect, test } from '@jest/globals';
import { solarYear } from './solar.ts';
import { monthNames, type SunInput, sunYear } from './sun-budget.ts';
import { sunMends } from './sun-mends.ts';

const CLEARNESS = [0.33, 0.37, 0.41, 0.44, 0.46, 0.48, 0.49, 0.47, 0.44, 0.4, 0.35, 0.33];
const INPUT: SunInput = {
  sun: {
    panelWp: 8,
    tiltDeg: 30,
    shade: 0,
    batteryWh: 42,
    depthOfDischarge: 0.8,
    isLithium: true,
    drawnHoursPerDay: 2,
    mainsMonths: [],
  },
  load: { dayW: 2.2, nightW: 3.2, standbyW: 0.15 },
  drawnHoursPerDay: 2,
  latitudeDeg: 51.5,
  clearness: CLEARNESS,
  performance: 0.7,
  discharge: 0.85,
};

test('with one load day and night it is the year that the vectors hold', () => {
  const load = { dayW: 5, nightW: 5, standbyW: 5 };
  const sun = { ...INPUT.sun, panelWp: 60, tiltDeg: 60, batteryWh: 480 };
  const year = sunYear({ ...INPUT, sun, load });
  const plain = solarYear({
    latitudeDeg: 51.5,
    tiltDeg: 60,
    clearness: CLEARNESS,
    panelWp: 60,
    performanceRatio: 0.7,
    batteryWh: 480,
    depthOfDischarge: 0.8,
    dischargeEfficiency: 0.85,
    loadW: 5,
  });
  expect(year.shortMonths).toEqual(plain.deficitMonths);
  expect(year.months.map(({ inWh }) => inWh)).toEqual(plain.yieldWh);
  for (const { outWh } of year.months) expect(outWh).toBeCloseTo(120, 9);
  expect(year.autonomyDays).toBeCloseTo(plain.autonomyDays, 9);
  expect(year.verdict).toBe(plain.verdict);
});

test('winter nights are longer, so the same drawing takes more', () => {
  const { months } = sunYear(INPUT);
  expect(months[11]?.outWh).toBeGreaterThan(months[5]?.outWh ?? 0);
  // 42 × 0.8 × 0.85 ÷ 3.2 W = 8.9 h
  expect(sunYear(INPUT).hoursOnConstantDraw).toBeCloseTo(8.925, 3);
});

test('every mend is worked out anew and keeps its promise', () => {
  const mends = sunMends(INPUT, false);
  expect(mends.map(({ id }) => id)).toEqual(expect.arrayContaining(['panel', 'tilt', 'events', 'mains']));
  for (const { sun, verdict } of mends)
    expect(sunYear({ ...INPUT, sun, drawnHoursPerDay: sun.drawnHoursPerDay }).verdict).toBe(verdict);
  expect(mends[0]?.verdict).toBe('ok');
  expect(mends.find(({ id }) => id === 'mains')?.sun.mainsMonths).toEqual(sunYear(INPUT).shortMonths);
});

test('where a tap draws it, drawing less is not offered; where all is well, nothing is', () => {
  expect(sunMends(INPUT, true).map(({ id }) => id)).not.toContain('events');
  expect(sunMends({ ...INPUT, sun: { ...INPUT.sun, panelWp: 200 } }, false)).toEqual([]);
});

test('in the polar night no panel is enough, and the mains is what is left', () => {
  const polar = { ...INPUT, latitudeDeg: 72 };
  expect(sunYear(polar).panelWpNeeded).toBeNull();
  expect(sunMends(polar, false).map(({ id }) => id)).not.toContain('panel');
  expect(sunMends(polar, false).map(({ id }) => id)).toContain('mains');
});

test('twelve months on the mains need no sun', () => {
  const sun = { ...INPUT.sun, mainsMonths: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] };
  expect(sunYear({ ...INPUT, sun })).toMatchObject({ shortMonths: [], verdict: 'ok' });
});

test.each([
  { months: [11, 12, 1], said: 'Nov to Jan' },
  { months: [12, 1], said: 'Dec and Jan' },
  { months: [2, 4], said: 'Feb, Apr' },
  { months: [6], said: 'Jun' },
  {
    months: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12],
    said: 'Jan, Feb, Mar, Apr, May, Jun, Jul, Aug, Sep, Oct, Nov, Dec',
  },
])('months as one says them: $said', ({ months, said }) => expect(monthNames(months)).toBe(said));
