import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Wall } from '../base/plan-geometry.ts';
import { stretchesAlong } from './footprint.ts';
import { nearEdgeM, spotView } from './ground-view.ts';
import type { Lens } from './lens.ts';
import { lensProblem } from './lens-limits.ts';
import { lensView, longestZoom } from './lens-view.ts';
import { sampleDown } from './resample.ts';
import { sightM, viewWedge } from './view-wedge.ts';

const LENS: Lens = {
  label: 'fixed',
  sensorWidthMm: 5.6,
  sensorHeightMm: 3.15,
  focalWideMm: 2.8,
  focalTeleMm: 8.4,
  projection: 'pinhole',
  measuredHfovDeg: null,
  axisDeg: 0,
  widthPx: 1920,
  heightPx: 1080,
};
const AIM = { mountHeightM: 3, tiltDownDeg: 20 };

test('zoom is held to the lens; a measured view counts before the computed one and narrows as the tangent does', () => {
  expect(lensView(LENS, 1).hfovDeg).toBeCloseTo(90, 6);
  expect(lensView(LENS, 99).zoom).toBeCloseTo(3, 9);
  const measured = { ...LENS, measuredHfovDeg: 110 };
  expect(lensView(measured, 1)).toMatchObject({ hfovDeg: expect.closeTo(110, 6), isBeyondModel: true });
  // tan(55°)/2 = 0.714 → 2·atan = 71.06°
  expect(lensView(measured, 2).hfovDeg).toBeCloseTo(71.06, 1);
});

test('beyond 100° no straight lens is believed, measured or not, and a bending one only where it was measured', () => {
  expect(lensView({ ...LENS, focalWideMm: 2 }, 1).isBeyondModel).toBe(true);
  expect(lensView({ ...LENS, projection: 'equidistant', focalWideMm: 1.8, focalTeleMm: 1.8 }, 1)).toMatchObject({
    hfovDeg: expect.closeTo(178.25, 1), // 5.6 / 1.8 rad
    isBeyondModel: true,
  });
  expect(lensView({ ...LENS, projection: 'equidistant', measuredHfovDeg: 180 }, 1).isBeyondModel).toBe(false);
});

test('levels lie along the ground without a gap, nearest first, and end where their density is reached', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 12, noNaN: true }),
      fc.integer({ min: 1, max: 80 }),
      fc.double({ min: 1, max: 3, noNaN: true }),
      fc.constantFrom<Lens['projection']>('pinhole', 'equidistant'),
      (mountHeightM, tiltDownDeg, zoom, projection) => {
        const view = lensView({ ...LENS, projection }, zoom);
        const aim = { mountHeightM, tiltDownDeg };
        const stretches = stretchesAlong({ view, aim, heightM: 1, maxM: 100 }, 0);
        for (const [at, { fromM, toM, level }] of stretches.entries()) {
          expect(toM).toBeGreaterThan(fromM);
          if (at > 0) expect(fromM).toBeCloseTo(stretches[at - 1]?.toM ?? Number.NaN, 6);
          expect(spotView(view, aim, (fromM + toM) / 2, 1).level).toBe(level);
        }
      },
    ),
  );
});

test('the longest zoom at which something holds, and the wide end where it holds nowhere', () => {
  expect(longestZoom(LENS, ({ zoom }) => zoom <= 2.4)).toBeCloseTo(2.4, 9);
  expect(longestZoom(LENS, () => false)).toBe(1);
  expect(longestZoom(LENS, () => true)).toBeCloseTo(3, 9);
});

test.each([
  { why: 'below the camera', aim: AIM, heightM: 0, vfovDeg: 60, nearM: 3 / Math.tan((50 * Math.PI) / 180) },
  { why: 'straight down', aim: { mountHeightM: 3, tiltDownDeg: 90 }, heightM: 0, vfovDeg: 60, nearM: 0 },
  // A door station at 1.2 m that looks level: a face 0.4 m higher enters where the upper ray, 30° up, reaches it.
  {
    why: 'above it',
    aim: { mountHeightM: 1.2, tiltDownDeg: 0 },
    heightM: 1.6,
    vfovDeg: 60,
    nearM: 0.4 / Math.tan(Math.PI / 6),
  },
  {
    why: 'above it, looking down',
    aim: { mountHeightM: 1.2, tiltDownDeg: 40 },
    heightM: 1.6,
    vfovDeg: 60,
    nearM: null,
  },
  { why: 'level with it', aim: { mountHeightM: 1.6, tiltDownDeg: 10 }, heightM: 1.6, vfovDeg: 60, nearM: 0 },
])('the near edge of what stands $why', ({ aim, heightM, vfovDeg, nearM }) => {
  const found = nearEdgeM(aim, vfovDeg, heightM);
  if (nearM === null) expect(found).toBeNull();
  else expect(found).toBeCloseTo(nearM, 3);
});

test('a target behind or outside the picture is not in view', () => {
  expect(spotView(lensView(LENS, 1), AIM, 8, 1.6).isInView).toBe(true);
  expect(spotView(lensView(LENS, 3), { ...AIM, tiltDownDeg: 60 }, 20, 1.6).isInView).toBe(false);
  expect(spotView(lensView(LENS, 1), { ...AIM, tiltDownDeg: 90 }, 5, 4).pxPerM).toBe(0);
});

test.each([
  { why: 'as bought', lens: LENS, field: null },
  { why: 'a straight lens of 0.9 mm', lens: { ...LENS, focalWideMm: 0.9 }, field: 'focalWideMm' },
  { why: 'longer at its wide end', lens: { ...LENS, focalTeleMm: 2 }, field: 'focalTeleMm' },
  { why: 'measured wider than its sensor allows', lens: { ...LENS, measuredHfovDeg: 150 }, field: 'measuredHfovDeg' },
  { why: 'measured a little wider, as lenses bend', lens: { ...LENS, measuredHfovDeg: 104 }, field: null },
  { why: 'pixels of another shape than the sensor', lens: { ...LENS, heightPx: 1440 }, field: 'heightPx' },
  {
    why: 'a fisheye',
    lens: { ...LENS, focalWideMm: 1.8, focalTeleMm: 1.8, projection: 'equidistant' as const },
    field: null,
  },
  {
    why: 'a fisheye beyond any',
    lens: { ...LENS, focalWideMm: 1, projection: 'equidistant' as const },
    field: 'focalWideMm',
  },
])('a lens is checked against its sensor: $why', ({ lens, field }) => {
  expect(lensProblem(lens)?.field ?? null).toBe(field);
});

const wall = (x1: number, y1: number, x2: number, y2: number, material: Wall['material'] = 'brick'): Wall => ({
  id: `${x1}`,
  name: '',
  from: { xM: x1, yM: y1 },
  to: { xM: x2, yM: y2 },
  material,
});
const HERE = { xM: 0, yM: 0 };

test.each([
  { why: 'a wall across', walls: [wall(4, -5, 4, 5)], angleDeg: 0, farM: 4 },
  { why: 'the nearer of two', walls: [wall(6, -5, 6, 5), wall(4, -5, 4, 5)], angleDeg: 0, farM: 4 },
  { why: 'at 60°', walls: [wall(4, -9, 4, 9)], angleDeg: 60, farM: 8 },
  { why: 'glass is looked through', walls: [wall(4, -5, 4, 5, 'glass')], angleDeg: 0, farM: Number.POSITIVE_INFINITY },
  { why: 'behind', walls: [wall(-4, -5, -4, 5)], angleDeg: 0, farM: Number.POSITIVE_INFINITY },
  { why: 'beside it', walls: [wall(4, 1, 4, 5)], angleDeg: 0, farM: Number.POSITIVE_INFINITY },
  { why: 'along the ray', walls: [wall(1, 0, 9, 0)], angleDeg: 0, farM: Number.POSITIVE_INFINITY },
  { why: 'the wall it hangs on', walls: [wall(0.05, -5, 0.05, 5)], angleDeg: 0, farM: Number.POSITIVE_INFINITY },
])('sight ends at walls: $why', ({ walls, angleDeg, farM }) =>
  expect(sightM(HERE, angleDeg, walls)).toBeCloseTo(farM, 9),
);

test('a wedge is cut off where a wall stands, and a level wholly behind it is not drawn', () => {
  // 1920 px behind 90°: identify to 3.8 m of depth, recognise to 7.7, observe to 15.4, detect beyond.
  const input = { position: HERE, headingDeg: 0, view: lensView(LENS, 1), aim: AIM, heightM: 1, maxM: 20 };
  const farOf = (walls: readonly Wall[], level: string): number =>
    Math.max(
      0,
      ...viewWedge(input, walls)
        .filter((shape) => shape.level === level)
        .flatMap(({ points }) => points.filter((_, at) => at % 2 === 0)),
    );
  const levels = (walls: readonly Wall[]) => [...new Set(viewWedge(input, walls).map(({ level }) => level))];
  expect(levels([])).toEqual(['identify', 'recognise', 'observe', 'detect']);
  const depthM = (farM: number): number => farM * Math.cos((20 * Math.PI) / 180) + 2 * Math.sin((20 * Math.PI) / 180);
  expect(depthM(farOf([], 'recognise'))).toBeCloseTo(960 / 125, 1);
  const wallAt = (xM: number) => [wall(xM, -40, xM, 40)];
  expect(farOf(wallAt(6), 'recognise')).toBeLessThanOrEqual(6.001);
  expect(levels(wallAt(3))).toEqual(['identify']); // at its sides too all beyond lies behind the wall
});

test('sampling down keeps the light: the mean of all pixels is that of the picture', () => {
  const [width, height] = [13, 7];
  const rgba = new Uint8ClampedArray(width * height * 4).map((_, at) => (at * 37) % 256);
  const mean = (pixels: Uint8ClampedArray, part: number): number => {
    const own = pixels.filter((_, at) => at % 4 === part);
    return own.reduce((sum, value) => sum + value, 0) / own.length;
  };
  for (const [w, h] of [
    [13, 7],
    [5, 3],
    [1, 1],
    [13, 1],
  ] as const) {
    const small = sampleDown({ width, height, rgba }, w, h);
    expect(small.rgba).toHaveLength(w * h * 4);
    for (const part of [0, 1, 2]) expect(Math.abs(mean(small.rgba, part) - mean(rgba, part))).toBeLessThan(0.6);
  }
  expect(sampleDown({ width, height, rgba }, width, height).rgba).toEqual(rgba);
  expect(() => sampleDown({ width, height, rgba }, 14, 7)).toThrow(RangeError);
});
