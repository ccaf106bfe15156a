import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { shortestPan } from '../reference/turns.ts';
import { calibrateTurns, runForTurn } from './timed-turns.ts';
import { degreesOfNorm, normOfDegrees, panBetween, turnToCentre, viewAtZoom } from './turning.ts';

const angle = fc.double({ min: -360, max: 360, noNaN: true });
const range = fc
  .tuple(fc.double({ min: -360, max: 0, noNaN: true }), fc.double({ min: 1, max: 360, noNaN: true }))
  .map(([minDeg, maxDeg]) => ({ minDeg, maxDeg }));

test('degrees go to numbers and back, and no number lies beyond its space', () =>
  fc.assert(
    fc.property(angle, range, (deg, of) => {
      const { norm, clamped } = normOfDegrees(deg, of);
      expect(Math.abs(norm)).toBeLessThanOrEqual(1);
      if (!clamped) expect(degreesOfNorm(norm, of)).toBeCloseTo(deg, 6);
    }),
  ));

test('the shorter way round leads there, and is never more than half a turn', () =>
  fc.assert(
    fc.property(fc.integer({ min: -720, max: 720 }), fc.integer({ min: -720, max: 720 }), (from, to) => {
      const delta = shortestPan(from, to);
      expect(delta).toBeGreaterThan(-180);
      expect(delta).toBeLessThanOrEqual(180);
      expect((((from + delta - to) % 360) + 360) % 360).toBeCloseTo(0, 9);
    }),
  ));

test('a head that turns evenly is known from two turns, and a run of the time that follows turns just as far', () =>
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 200, noNaN: true }),
      fc.double({ min: 0, max: 0.5, noNaN: true }),
      fc.double({ min: 5, max: 170, noNaN: true }),
      (degPerS, deadS, wanted) => {
        const turned = (runS: number): number => degPerS * Math.max(0, runS - deadS);
        const found = calibrateTurns([0.8, 1.4, 2.2].map((runS) => ({ runS, deg: turned(runS) })));
        expect(found?.degPerS).toBeCloseTo(degPerS, 4);
        expect(found?.deadTimeS).toBeCloseTo(deadS, 4);
        expect(found?.residualDeg).toBeCloseTo(0, 4);
        if (found) expect(turned(runForTurn(found, wanted))).toBeCloseTo(wanted, 3);
      },
    ),
  ));

test.each([
  { why: 'one turn', turns: [{ runS: 1, deg: 10 }] },
  {
    why: 'the same time twice',
    turns: [
      { runS: 1, deg: 10 },
      { runS: 1, deg: 12 },
    ],
  },
  {
    why: 'no motion',
    turns: [
      { runS: 1, deg: 0 },
      { runS: 2, deg: 0 },
    ],
  },
])('no speed is told from $why', ({ turns }) => expect(calibrateTurns(turns)).toBeNull());

test('what was turned to lies in the middle: the angle is that of a pinhole, at every zoom', () =>
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 5, max: 120, noNaN: true }),
      fc.double({ min: 1, max: 30, noNaN: true }),
      (x, hfovDeg, zoom) => {
        const seen = viewAtZoom(hfovDeg, zoom);
        const { panDeg } = turnToCentre({ x, y: 0.5 }, { width: 1, height: 1, hfovDeg: seen });
        const back = 0.5 + (Math.tan((panDeg * Math.PI) / 180) / Math.tan((seen * Math.PI) / 360)) * 0.5;
        expect(back).toBeCloseTo(x, 6);
        expect(Math.abs(panDeg)).toBeLessThanOrEqual(seen / 2 + 1e-9);
      },
    ),
  ));

test('a pan is told by one thing in two pictures, however far the head looks down', () => {
  const picture = { width: 1280, height: 720, hfovDeg: 70 };
  const f = 640 / Math.tan((35 * Math.PI) / 180);
  const deg = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(deg, deg, deg, deg, (tilt01, bearing01, above01, pan01) => {
      const tilt = tilt01 * 60 * (Math.PI / 180);
      const panDeg = 20 * pan01;
      // a thing that stands still, by its bearing and height from where the head looks first
      const seen = (bearing: number): { x: number; y: number; z: number } => {
        const elevation = tilt + above01 * 0.25;
        const world = {
          right: Math.cos(elevation) * Math.sin(bearing),
          ahead: Math.cos(elevation) * Math.cos(bearing),
          up: Math.sin(elevation),
        };
        // turned into the picture by the tilt alone
        const z = world.ahead * Math.cos(tilt) + world.up * Math.sin(tilt);
        const up = -world.ahead * Math.sin(tilt) + world.up * Math.cos(tilt);
        return { x: 640 + (f * world.right) / z, y: 360 - (f * up) / z, z };
      };
      const bearing = bearing01 * 0.3;
      const [before, after] = [seen(bearing), seen(bearing - (panDeg * Math.PI) / 180)];
      if (before.z <= 0.1 || after.z <= 0.1) return;
      expect(panBetween(before, after, picture, (tilt * 180) / Math.PI)).toBeCloseTo(panDeg, 6);
    }),
  );
});

test('of two lengths of run, however often, no spread is told', () => {
  const turns = [0.4, 0.4, 1, 1].map((runS, at) => ({ runS, deg: 20 * runS + at * 0.1 }));
  expect(calibrateTurns(turns)?.residualDeg).toBeNull();
  expect(calibrateTurns([...turns, { runS: 0.7, deg: 14 }])?.residualDeg).toBeGreaterThan(0);
});
