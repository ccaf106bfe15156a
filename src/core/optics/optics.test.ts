import { expect, test } from '@jest/globals';
import { DETAIL_LEVELS, judgeDetail, levelAt, pxPerMForText, pxPerMOf, readText } from './detail-levels.ts';
import {
  blindZone,
  density,
  densityTilted,
  fieldOfView,
  PINHOLE_VALID_TO_DEG,
  reach,
  sceneWidth,
} from './picture-geometry.ts';

// EN/IEC 62676-4: a level begins at its density, the boundary is in it.
test.each([
  { why: 'just at identify', pxPerM: 250, level: 'identify' },
  { why: 'a rounding below it', pxPerM: 249.9999999, level: 'identify' },
  { why: 'below every level', pxPerM: 12.4, level: 'below-monitor' },
  { why: 'above every level', pxPerM: 4000, level: 'inspect' },
])('$why', ({ pxPerM, level }) => expect(levelAt(pxPerM)).toBe(level));

// Reach and density are one sum read from two sides: 1,920 px behind 90° reach identify at 3.84 m.
test.each(DETAIL_LEVELS.map(({ level }) => ({ level })))(
  'at its reach a camera has the density of $level',
  ({ level }) => {
    for (const hfovDeg of [28, 60, 90])
      expect(density(2560, hfovDeg, reach(2560, hfovDeg, pxPerMOf(level)))).toBeCloseTo(pxPerMOf(level), 9);
  },
);

test.each([
  { why: 'what is wanted', pxPerM: 125, verdict: 'ok' },
  { why: 'a fifth below', pxPerM: 100, verdict: 'tight' },
  { why: 'less than that', pxPerM: 99, verdict: 'will-not-work' },
])('detail for recognising: $why', ({ pxPerM, verdict }) => expect(judgeDetail(pxPerM, 125)).toBe(verdict));

test('the density a text asks for is where it is just read: 80 mm need 250 px/m', () => {
  expect(pxPerMForText(80)).toBe(250);
  expect(readText(250, 80)).toEqual({ pxPerChar: 20, verdict: 'ok' });
  expect(readText(149, 80).verdict).toBe('will-not-work');
});

test('a level camera sees a target straight ahead as the axis does', () => {
  const view = densityTilted(
    { mountHeightM: 2, tiltDownDeg: 0 },
    { hPixels: 1920, hfovDeg: 90 },
    { groundDistanceM: 12, targetHeightM: 2 },
  );
  expect(view).toMatchObject({ depthM: 12, slantM: 12, depressionDeg: 0 });
  expect(view.pxPerM).toBeCloseTo(1920 / sceneWidth(90, 12), 9);
});

test('looking higher, the near edge of the picture moves away, and at last the horizon is in it', () => {
  const near = [60, 45, 30, 20].map((tiltDownDeg) => blindZone({ mountHeightM: 3, tiltDownDeg }, 40, 0));
  const distances = near.map(({ nearM }) => nearM ?? Number.NaN);
  expect(distances).toEqual([...distances].sort((a, b) => a - b));
  expect(near.map(({ farM }) => farM === null)).toEqual([false, false, false, true]);
  expect(blindZone({ mountHeightM: 3, tiltDownDeg: -30 }, 40, 0)).toEqual({ nearM: null, farM: null });
});

test.each([
  { why: 'a lens of no length', act: () => fieldOfView(5.6, 0) },
  { why: 'a sensor of no width', act: () => fieldOfView(0, 4) },
  { why: 'a negative distance', act: () => density(1920, 90, -1) },
  { why: 'a view of half the world', act: () => sceneWidth(180, 4) },
  { why: 'a density of nothing', act: () => reach(1920, 90, 0) },
  { why: 'no number at all', act: () => density(1920, Number.NaN, 4) },
])('a caller’s mistake is one: $why', ({ act }) => expect(act).toThrow(RangeError));

test('the pinhole model says up to where it is to be believed', () => expect(PINHOLE_VALID_TO_DEG).toBe(100));
