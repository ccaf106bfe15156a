import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import {
  framesKept,
  heatAfter,
  heatOf,
  heatRun,
  heatRunAt,
  heatScale,
  isHeatedElsewhere,
  MOUNTS,
  minutesTo,
  type OldPhoneBody,
  type OldPhoneLoad,
  SCREENS,
  scaledBy,
} from './heat.ts';

const BODY: OldPhoneBody = { kelvinPerWatt: { open: 9, metal: 6, closed: 16 }, joulePerKelvin: 150 };
const HD: OldPhoneLoad = { widthPx: 1280, heightPx: 720, fps: 15, screen: 'off', isChargeLimited: true };

// 0.4 + 0.75 + 0.3 + 0.012 · 13.824 + 0 + 0.15
test('watts of an ordinary stream, by hand', () => expect(heatOf(HD)).toBeCloseTo(1.766, 3));

const anyLoad = fc.record({
  widthPx: fc.integer({ min: 320, max: 3840 }),
  heightPx: fc.integer({ min: 240, max: 2160 }),
  fps: fc.integer({ min: 1, max: 60 }),
  screen: fc.constantFrom(...SCREENS),
  isChargeLimited: fc.boolean(),
});

test('the curve is that of a body that is stepped second by second', () => {
  fc.assert(
    fc.property(anyLoad, fc.integer({ min: -10, max: 45 }), fc.constantFrom(...MOUNTS), (load, roomC, mount) => {
      const run = heatRun(load, roomC, mount, BODY);
      // C·dT/dt = P − (T − room)/R, in steps of a second
      let celsius = roomC;
      for (let second = 1; second <= 3600; second++) {
        celsius += (heatOf(load) - (celsius - roomC) / BODY.kelvinPerWatt[mount]) / BODY.joulePerKelvin;
        if (second % 600 === 0) expect(heatAfter(run, roomC, second / 60)).toBeCloseTo(celsius, 1);
      }
    }),
    runs(40),
  );
});

test('the minutes to a limit are those after which the curve is there', () => {
  fc.assert(
    fc.property(anyLoad, fc.integer({ min: 0, max: 44 }), fc.constantFrom(...MOUNTS), (load, roomC, mount) => {
      const run = heatRun(load, roomC, mount, BODY);
      const minutes = minutesTo(run, roomC, 45);
      if (minutes === null) expect(heatAfter(run, roomC, 1e6)).toBeLessThanOrEqual(45 + 1e-6);
      else expect(heatAfter(run, roomC, minutes)).toBeCloseTo(45, 6);
    }),
  );
  expect(minutesTo(heatRun(HD, 46, 'open', BODY), 46, 45)).toBe(0);
});

test('held to a reading, the curve passes through it', () => {
  fc.assert(
    fc.property(
      anyLoad,
      fc.integer({ min: 0, max: 30 }),
      fc.double({ min: 1, max: 25, noNaN: true }),
      (load, roomC, risen) => {
        const scale = heatScale(heatRun(load, roomC, 'open', BODY), roomC, roomC + risen);
        if (scale === null) throw new Error('a reading above the room tells something');
        const held = heatRun(load, roomC, 'open', scaledBy(BODY, scale));
        // what no body could do within an hour is met as nearly as it goes
        if (scale > 0.051 && scale < 19.9) expect(heatAfter(held, roomC, 60)).toBeCloseTo(roomC + risen, 3);
      },
    ),
  );
  expect(heatScale(heatRun(HD, 30, 'open', BODY), 30, 29)).toBeNull();
});

test('less of anything is never warmer', () => {
  fc.assert(
    fc.property(anyLoad, (load) => {
      const steady = (change: Partial<OldPhoneLoad>): number =>
        heatRun({ ...load, ...change }, 20, 'open', BODY).steadyC;
      const now = steady({});
      for (const change of [
        { fps: 1 },
        { screen: 'off' },
        { isChargeLimited: true },
        { widthPx: 320, heightPx: 240 },
      ] as const)
        expect(steady(change)).toBeLessThanOrEqual(now + 1e-9);
    }),
  );
});

test.each([
  { celsius: 40, kept: 1 },
  { celsius: 45, kept: 1 },
  { celsius: 49.5, kept: 0.75 },
  { celsius: 70, kept: 1 / 3 },
])('at $celsius °C it gives $kept of its frames', ({ celsius, kept }) =>
  expect(framesKept(celsius, 45)).toBeCloseTo(kept, 9),
);

test('what its own watts cannot warm is heated by something else, by what all of its heat would come to', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 5, noNaN: true }),
      fc.double({ min: -10, max: 40, noNaN: true }),
      fc.double({ min: 6, max: 90, noNaN: true }),
      (watts, roomC, risenK) => {
        const body = { kelvinPerWatt: { open: 9, metal: 6, closed: 16 }, joulePerKelvin: 180 };
        const run = heatRunAt(watts, roomC, 'closed', body);
        const all = (watts * 3600) / body.joulePerKelvin;
        expect(isHeatedElsewhere(run, roomC, roomC + risenK)).toBe(risenK > 0.9 * all);
        const scale = heatScale(run, roomC, roomC + risenK);
        if (risenK > 0.9 * all) expect(scale).toBeNull();
        else {
          // the same body, read again after the hour, gives what was read
          const again = heatRunAt(watts, roomC, 'closed', scaledBy(body, scale ?? 1));
          expect(heatAfter(again, roomC, 60)).toBeCloseTo(roomC + risenK, 1);
          expect(again.steadyC).toBeLessThan(roomC + 60 * watts * 5);
        }
      },
    ),
    runs(200),
  );
});
