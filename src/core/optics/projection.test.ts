import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { levelAt } from './detail-levels.ts';
import { footprint, stretchesAlong } from './footprint.ts';
import { spotView } from './ground-view.ts';
import type { Lens } from './lens.ts';
import { lensView } from './lens-view.ts';
import { draw, seenAcross, zoneSeenM } from './projection.ts';

const SENSOR = { sensorWidthMm: 5.6, sensorHeightMm: 3.15, focalWideMm: 2.8, focalTeleMm: 2.8 } as const;
const lens = (projection: Lens['projection'], measuredHfovDeg: number, axisDeg = 0, square = false): Lens => ({
  ...SENSOR,
  ...(square ? { sensorHeightMm: SENSOR.sensorWidthMm } : {}),
  label: 'one',
  projection,
  measuredHfovDeg,
  axisDeg,
  widthPx: 2560,
  heightPx: square ? 2560 : 1440,
});

type Vector = readonly [number, number, number];
const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** A camera of the test's own: where the ray to a point (ahead, right, up; from the camera) meets the picture, px. */
function pixelOf(one: Lens, tiltDeg: number, point: Vector): readonly [number, number] | null {
  const [tilt, axis] = [(tiltDeg * Math.PI) / 180, (one.axisDeg * Math.PI) / 180];
  const look: Vector = [Math.cos(tilt) * Math.cos(axis), Math.cos(tilt) * Math.sin(axis), -Math.sin(tilt)];
  const right: Vector = [-Math.sin(axis), Math.cos(axis), 0];
  const down = cross(look, right).map((part) => -part) as unknown as Vector; // up is right × look in these axes
  const up = dot(down, [0, 0, 1]) > 0 ? down : (down.map((part) => -part) as unknown as Vector);
  const [x, y, z] = [dot(point, right), -dot(point, up), dot(point, look)];
  const half = ((one.measuredHfovDeg ?? 90) * Math.PI) / 360;
  if (one.projection === 'pinhole') {
    if (z <= 0) return null;
    const focal = one.widthPx / 2 / Math.tan(half);
    return [(focal * x) / z, (focal * y) / z];
  }
  const angle = Math.acos(z / Math.hypot(x, y, z));
  const around = Math.atan2(y, x);
  const radius = (one.widthPx / 2 / half) * angle;
  return [radius * Math.cos(around), radius * Math.sin(around)];
}

const isInside = (one: Lens, pixel: readonly [number, number] | null, slack: number): boolean =>
  pixel !== null && Math.abs(pixel[0]) <= one.widthPx / 2 + slack && Math.abs(pixel[1]) <= one.heightPx / 2 + slack;

const SETTING = {
  projection: fc.constantFrom<Lens['projection']>('pinhole', 'equidistant'),
  hfovDeg: fc.double({ min: 20, max: 178, noNaN: true }),
  axisDeg: fc.integer({ min: -80, max: 80 }),
  tiltDeg: fc.integer({ min: 0, max: 90 }),
  mountM: fc.double({ min: 1, max: 8, noNaN: true }),
  aheadM: fc.double({ min: 0.5, max: 40, noNaN: true }),
  rightM: fc.double({ min: -20, max: 20, noNaN: true }),
};

test('ray by ray, another camera finds the same: what is in view, and how many pixels a metre gets', () => {
  fc.assert(
    fc.property(fc.record(SETTING), ({ projection, hfovDeg, axisDeg, tiltDeg, mountM, aheadM, rightM }) => {
      const one = lens(projection, hfovDeg, axisDeg);
      const aim = { mountHeightM: mountM, tiltDownDeg: tiltDeg };
      const drawn = draw(lensView(one, 1), aim, { aheadM, rightM, heightM: 1.6 });
      const here: Vector = [aheadM, rightM, 1.6 - mountM];
      const pixel = pixelOf(one, tiltDeg, here);
      if (isInside(one, pixel, -1)) expect(drawn.isInView).toBe(true);
      if (!isInside(one, pixel, 1)) expect(drawn.isInView).toBe(false);
      if (!pixel || !drawn.isInView) return;
      // A millimetre across: along the sensor for a straight lens, across the sight for a bending one.
      const groundM = Math.hypot(aheadM, rightM);
      const axis = (axisDeg * Math.PI) / 180;
      const way: Vector =
        projection === 'pinhole' ? [-Math.sin(axis), Math.cos(axis), 0] : [-rightM / groundM, aheadM / groundM, 0];
      const beside = pixelOf(one, tiltDeg, [here[0] + way[0] * 1e-3, here[1] + way[1] * 1e-3, here[2]]);
      const pxPerM = beside ? Math.hypot(beside[0] - pixel[0], beside[1] - pixel[1]) * 1000 : Number.NaN;
      expect(drawn.acrossPxPerM / pxPerM).toBeCloseTo(1, 2);
      // A standing millimetre has at least what is counted for it: stretching at the rim is not.
      const above = pixelOf(one, tiltDeg, [here[0], here[1], here[2] + 1e-3]);
      const standing = above ? Math.hypot(above[0] - pixel[0], above[1] - pixel[1]) * 1000 : Number.NaN;
      expect(drawn.uprightPxPerM).toBeLessThanOrEqual(standing * 1.01);
    }),
    runs(500),
  );
});

test('what is seen of a line across is what its points say', () => {
  fc.assert(
    fc.property(fc.record(SETTING), ({ projection, hfovDeg, axisDeg, tiltDeg, mountM, aheadM }) => {
      const one = lens(projection, hfovDeg, axisDeg);
      const seen = seenAcross(lensView(one, 1), { mountHeightM: mountM, tiltDownDeg: tiltDeg }, aheadM, 1.6);
      const line = Array.from({ length: 201 }, (_, at) => ((at - 100) / 100) * 5.6 * aheadM);
      const within = (slackPx: number): readonly number[] =>
        line.filter((rightM) => isInside(one, pixelOf(one, tiltDeg, [aheadM, rightM, 1.6 - mountM]), slackPx));
      const points = within(-0.5);
      // Where the line runs along the very rim of the picture, rounding decides: there nothing is asked.
      fc.pre(within(2).length - points.length <= 1);
      const slack = 0.12 * aheadM; // two steps between points
      // A corner of a bending view that no sample of four degrees meets may stay unseen; it never says more than there is.
      if (points.length === 0)
        expect((seen?.toM ?? 0) - (seen?.fromM ?? 0)).toBeLessThanOrEqual(2 * slack + 0.2 * aheadM);
      else if (projection === 'pinhole') {
        expect(Math.abs((seen?.fromM ?? Number.NaN) - Math.min(...points))).toBeLessThan(slack);
        expect(Math.abs((seen?.toM ?? Number.NaN) - Math.max(...points))).toBeLessThan(slack);
      } else if (seen) {
        expect(seen.fromM).toBeGreaterThan(Math.min(...points) - slack);
        expect(seen.toM).toBeLessThan(Math.max(...points) + slack);
      }
    }),
    { ...runs(300), interruptAfterTimeLimit: 20_000 },
  );
});

test('of two corners that see a line, the wider one counts, though one sample meets each', () => {
  // Just so turned that the left corner begins at eighty degrees aside, where the sampling ends.
  const across = [-1, 1].map((axisDeg) =>
    seenAcross(
      lensView(lens('equidistant', 159.7031, axisDeg), 1),
      { mountHeightM: 3.55486872, tiltDownDeg: 4 },
      0.5,
      1.6,
    ),
  );
  const [left, right] = across;
  expect(right?.fromM).toBeCloseTo(2.746, 2);
  expect(left?.toM).toBeCloseTo(-2.746, 2); // turned the other way, its mirror picture
});

test('a zone is seen as far in from each end as its points say', () => {
  fc.assert(
    fc.property(
      fc.record(SETTING),
      fc.double({ min: 0.5, max: 9, noNaN: true }), // farther than eighty degrees aside nothing counts
      fc.integer({ min: -70, max: 70 }),
      ({ hfovDeg, axisDeg, tiltDeg, mountM, aheadM }, share, otherAxisDeg) => {
        const widthM = share * aheadM;
        const lenses = [lens('pinhole', hfovDeg, axisDeg), lens('pinhole', hfovDeg, otherAxisDeg)];
        const aim = { mountHeightM: mountM, tiltDownDeg: tiltDeg };
        const seen = lenses.map((one) => seenAcross(lensView(one, 1), aim, aheadM, 1.6));
        // A sliver that no point meets says nothing.
        const half = widthM / 2;
        const inside = seen.map((one) => (one ? Math.min(half, one.toM) - Math.max(-half, one.fromM) : 0));
        fc.pre(inside.every((lengthM) => lengthM <= 0 || lengthM > 0.01 * widthM));
        const points = Array.from({ length: 401 }, (_, at) => (at / 400 - 0.5) * widthM).filter((rightM) =>
          lenses.some((one) => isInside(one, pixelOf(one, tiltDeg, [aheadM, rightM, 1.6 - mountM]), 0)),
        );
        const byPoints = points.length === 0 ? 0 : Math.max(...points) - Math.min(...points);
        expect(Math.abs(zoneSeenM(seen, widthM) - byPoints)).toBeLessThan(0.011 * widthM);
      },
    ),
    runs(300),
  );
});

test('what falls on the floor: along any direction a point is in a stretch just when its ray meets the picture', () => {
  fc.assert(
    fc.property(fc.record(SETTING), ({ projection, hfovDeg, axisDeg, tiltDeg, mountM, aheadM, rightM }) => {
      const one = lens(projection, hfovDeg, axisDeg);
      const over = {
        view: lensView(one, 1),
        aim: { mountHeightM: mountM, tiltDownDeg: tiltDeg },
        heightM: 1,
        maxM: 60,
      };
      const groundM = Math.hypot(aheadM, rightM);
      const stretches = stretchesAlong(over, (Math.atan2(rightM, aheadM) * 180) / Math.PI);
      const pixel = pixelOf(one, tiltDeg, [aheadM, rightM, -mountM]);
      fc.pre(isInside(one, pixel, -3) || !isInside(one, pixel, 3));
      fc.pre(stretches.every((edge) => Math.min(Math.abs(edge.fromM - groundM), Math.abs(edge.toM - groundM)) > 0.01));
      const own = stretches.find(({ fromM, toM }) => groundM > fromM && groundM < toM);
      const { level } = judgedAt(over, aheadM, rightM);
      if (!isInside(one, pixel, 0) || level === 'below-monitor') expect(own).toBeUndefined();
      else if (projection === 'pinhole') expect(own?.level).toBe(level);
      // Of a bending lens a strip narrower than its samples may be missed; what is told is so.
      else if (own) expect(own.level).toBe(level);
    }),
    runs(400),
  );
});

/** The level at a point, as it is judged. */
function judgedAt({ view, aim, heightM }: Parameters<typeof stretchesAlong>[0], aheadM: number, rightM: number) {
  return { level: levelAt(draw(view, aim, { aheadM, rightM, heightM }).acrossPxPerM) };
}

test('a level shorter than the way between two samples of a bending lens is found all the same', () => {
  const one = lens('equidistant', 68.35, -2);
  const over = { view: lensView(one, 1), aim: { mountHeightM: 2.864, tiltDownDeg: 1 }, heightM: 1, maxM: 60 };
  expect(stretchesAlong(over, 0).map(({ level }) => level)).toContain('identify');
});

test('a fisheye on the ceiling sees all around it; a tilted straight lens a stretch ahead', () => {
  const over = (one: Lens, tiltDownDeg: number) => ({
    view: lensView(one, 1),
    aim: { mountHeightM: 3, tiltDownDeg },
    heightM: 1,
    maxM: 20,
  });
  const around = footprint(over(lens('equidistant', 180, 0, true), 90));
  expect([around[0]?.bearingDeg, around.at(-1)?.bearingDeg]).toEqual([-180, 180]);
  expect(around.every(({ stretches }) => (stretches.at(-1)?.toM ?? 0) > 8)).toBe(true);
  const ahead = footprint(over(lens('pinhole', 60), 30));
  expect(Math.min(...ahead.map(({ bearingDeg }) => bearingDeg))).toBeGreaterThan(-60);
  expect(footprint(over(lens('pinhole', 30), 0)).every(({ stretches }) => stretches[0]?.fromM ?? 9 > 8)).toBe(true);
});

test('a fisheye on the ceiling has 61 px/m at twenty metres, not 582', () => {
  const view = lensView(lens('equidistant', 180, 0, true), 1);
  const spot = spotView(view, { mountHeightM: 3, tiltDownDeg: 90 }, 20, 1.6);
  expect(spot).toMatchObject({ pxPerM: expect.closeTo(61.15, 1), isInView: true, level: 'detect' });
});

test('120° at five metres see about eighteen metres across, bent or straight', () => {
  for (const projection of ['equidistant', 'pinhole'] as const) {
    const seen = seenAcross(lensView(lens(projection, 120), 1), { mountHeightM: 3, tiltDownDeg: 16 }, 5, 1.6);
    expect((seen?.toM ?? 0) - (seen?.fromM ?? 0)).toBeCloseTo(18, 0);
  }
});

test('the ends of a zone are judged, not widths: what one lens sees beyond an end helps the other end nothing', () => {
  const aim = { mountHeightM: 2.5, tiltDownDeg: 10 };
  const seen = [0, 60].map((axisDeg) => seenAcross(lensView(lens('pinhole', 90, axisDeg), 1), aim, 5, 1.6));
  // The left end is seen to 5.1 m of nine, the right one wholly.
  expect(zoneSeenM(seen, 18)).toBeCloseTo(14.1, 0);
  expect(zoneSeenM([seen[1] ?? null], 4)).toBeLessThan(3.5);
  expect(zoneSeenM([null], 4)).toBe(0);
});

test('letters seen from above shrink by the cosine', () => {
  const view = lensView(lens('pinhole', 60), 1);
  const aim = { mountHeightM: 6, tiltDownDeg: 63 };
  const spot = spotView(view, aim, 5 / Math.tan((63 * Math.PI) / 180), 1);
  expect(spot.uprightPxPerM / spot.pxPerM).toBeCloseTo(Math.cos((63 * Math.PI) / 180), 6);
});
