import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { clearnessOf, UNKNOWN_SKY } from '../document/chapters/sky/sky.ts';
import { solarYear } from '../reference/sun-year.ts';
import { clearSkyBeamKWh, plannedDayKWh } from './solar.ts';
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
    panelPrice: null,
    batteryPrice: null,
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

/** A clear day of the test's own: sun and panel as vectors, every two minutes. */
function clearDay(latitudeDeg: number, month: number, tiltDeg: number): number {
  const [rad, day] = [Math.PI / 180, [17, 47, 75, 105, 135, 162, 198, 228, 258, 288, 318, 344][month - 1] ?? 0];
  const declination = 23.45 * Math.sin(((360 * (284 + day)) / 365) * rad) * rad;
  const normal = 1367 * (1 + 0.033 * Math.cos(((360 * day) / 365) * rad));
  const south = latitudeDeg >= 0 ? 1 : -1; // a panel faces the equator
  let wattHours = 0;
  for (let minute = 1; minute < 1440; minute += 2) {
    const hour = ((minute / 4 - 180) * Math.PI) / 180;
    const lat = latitudeDeg * rad;
    // East, towards the south, up.
    const sun = [
      -Math.cos(declination) * Math.sin(hour),
      Math.cos(declination) * Math.cos(hour) * Math.sin(lat) - Math.sin(declination) * Math.cos(lat),
      Math.cos(declination) * Math.cos(hour) * Math.cos(lat) + Math.sin(declination) * Math.sin(lat),
    ] as const;
    if (sun[2] <= 0) continue;
    const panel = [0, south * Math.sin(tiltDeg * rad), Math.cos(tiltDeg * rad)] as const;
    const facing = Math.max(0, sun[1] * panel[1] + sun[2] * panel[2]);
    const elevation = Math.asin(sun[2]) / rad;
    const mass = 1 / (sun[2] + 0.50572 * (elevation + 6.07995) ** -1.6364);
    wattHours += (normal * 0.7 ** (mass ** 0.678) * facing) / 30;
  }
  return wattHours / 1000;
}

test('the beam of a clear day is that of another integration, and no month is planned with more', () => {
  const setting = [
    fc.integer({ min: -66, max: 66 }),
    fc.integer({ min: 1, max: 12 }),
    fc.integer({ min: 0, max: 90 }),
  ] as const;
  fc.assert(
    fc.property(
      ...setting,
      fc.double({ min: 0.2, max: 0.7, noNaN: true }),
      (latitudeDeg, month, tiltDeg, clearness) => {
        const clear = clearDay(latitudeDeg, month, tiltDeg);
        expect(Math.abs(clearSkyBeamKWh(latitudeDeg, month, tiltDeg) - clear)).toBeLessThan(0.02 + clear * 0.01);
        const flat = plannedDayKWh({ latitudeDeg, month, clearness, tiltDeg: 0, groundReflectance: 0 });
        const planned = plannedDayKWh({ latitudeDeg, month, clearness, tiltDeg, groundReflectance: 0 });
        if (planned === null || flat === null) return;
        // Whatever the tilt: the beam of a clear sky, and no more scattered light than lies on the level.
        expect(planned).toBeLessThanOrEqual(clear + flat + 0.03);
      },
    ),
    runs(150),
  );
});

test.each([
  { latitudeDeg: 62, beforeKWh: 0.87, mostKWh: 0.78 },
  { latitudeDeg: 66, beforeKWh: 0.42, mostKWh: 0.09 },
])(
  'December at $latitudeDeg°: a clear sky gives $mostKWh kWh/m², so the month is not known',
  ({ latitudeDeg, mostKWh }) => {
    expect(clearSkyBeamKWh(latitudeDeg, 12, 90)).toBeCloseTo(mostKWh, 2);
    const year = sunYear({ ...INPUT, latitudeDeg, sun: { ...INPUT.sun, panelWp: 265, tiltDeg: 90 } });
    expect(year.unknownMonths).toContain(12);
    expect(year.verdict).toBe('unknown');
    expect(year.panelWpNeeded).toBeNull();
  },
);

test('south of the equator the year is that of the north half a year later', () => {
  const input = (latitudeDeg: number): SunInput => ({
    ...INPUT,
    sun: { ...INPUT.sun, panelWp: 42, tiltDeg: 60 },
    load: { dayW: 2.2, nightW: 2.2, standbyW: 2.2 },
    latitudeDeg,
    clearness: clearnessOf({ ...UNKNOWN_SKY, latitudeDeg }),
  });
  const south = sunYear(input(-43.5));
  expect(south.worstMonth).toBe(6);
  expect(south.shortMonths).toEqual([6]);
  expect(sunYear(input(43.5)).worstMonth).toBe(12);
  expect(clearnessOf({ latitudeDeg: -10, clearness: CLEARNESS })).toBe(CLEARNESS);
});

test.each([
  { why: 'near the equator a steeper panel brings nothing', latitudeDeg: 8, tiltDeg: 10 },
  { why: 'where the sun does not rise no tilt brings it', latitudeDeg: 72, tiltDeg: 60 },
])('$why: no tilt is offered', ({ latitudeDeg, tiltDeg }) => {
  const year = { ...INPUT, latitudeDeg, sun: { ...INPUT.sun, panelWp: 4, tiltDeg } };
  expect(sunMends(year, false).filter(({ sun }) => sun.tiltDeg !== tiltDeg)).toEqual([]);
});

test('in the polar night no panel is enough, and the mains is what is left', () => {
  const polar = { ...INPUT, latitudeDeg: 72 };
  expect(sunYear(polar).panelWpNeeded).toBeNull();
  expect(sunMends(polar, false).map(({ id }) => id)).not.toContain('panel');
  expect(sunMends(polar, false).map(({ id }) => id)).toContain('mains');
});

test('twelve months on the mains need no sun', () => {
  const sun = {
    ...INPUT.sun,
    panelPrice: null,
    batteryPrice: null,
    mainsMonths: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12],
  };
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
