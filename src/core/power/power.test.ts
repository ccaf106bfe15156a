import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { solarYear } from '../reference/sun-year.ts';
import { awgWire } from '../reference/wires.ts';
import { dropAtPower, judgeVolts, longestRun, loopOhmOf, thinnestWire, wireOfArea } from './dc-run.ts';
import { feedConstantPower, POE_CLASSES, poeBudget, poeClass, poeClassFor, poeDraw } from './poe.ts';
import { extraterrestrialDay, tiltedDay } from './solar.ts';

test.each(POE_CLASSES.filter(({ class: number }) => number > 0))(
  'a device that takes all of class $class gets class $class, one watt more the next',
  ({ class: number, pdW }) => {
    expect(poeClassFor(pdW)?.class).toBe(number);
    expect(poeClassFor(pdW + 1)?.class ?? null).toBe(number === 8 ? null : number + 1);
  },
);

test('what goes in is what comes out and what is lost on the way', () => {
  const draw = poeDraw({ pseVolts: 50, lengthM: 80, loopOhmPer100m: 12.5, pairs: 2, pdW: 12 });
  expect((draw.pseW ?? 0) - (draw.lossW ?? 0)).toBeCloseTo(12, 9);
  expect((draw.currentA ?? 0) * (draw.loadVolts ?? 0)).toBeCloseTo(12, 9);
});

test('a load without a cable takes just its current; one beyond the cable collapses', () => {
  expect(feedConstantPower(12, 0, 6)).toEqual({ currentA: 0.5, loadVolts: 12 });
  // V² = 4RP is the last that holds: 144 = 4 × 6 × 6, at half the voltage.
  expect(feedConstantPower(12, 6, 6)).toEqual({ currentA: 1, loadVolts: 6 });
  expect(feedConstantPower(12, 6.01, 6)).toEqual({ currentA: null, loadVolts: null });
});

test('a switch that holds by measure may be over by class: it reserves what may come', () => {
  const ports = [1, 2, 3, 4, 5].map((port) => ({ port, class: 3, pdW: 5, loopOhm: 4 }));
  const base = { budgetW: 65, pseType: 1, pseVolts: 50, reserveFraction: 0.1, ports } as const;
  expect(poeBudget({ ...base, mode: 'class' })).toMatchObject({ totalW: 77, verdict: 'will-not-work' });
  expect(poeBudget({ ...base, mode: 'measured' }).verdict).toBe('ok');
});

test('the longest run of a wire is where its voltage just holds, and the thinnest wire for it is that wire', () => {
  const demand = { supplyVolts: 12, minVolts: 10.8, loadW: 6, conductorC: 20 };
  for (const awg of [14, 18, 22]) {
    const { areaMm2 } = awgWire(awg);
    const lengthM = longestRun(demand, areaMm2);
    const run = { lengthM, areaMm2, conductorC: 20, contactOhm: 0 };
    expect(dropAtPower(12, 6, run).loadVolts).toBeCloseTo(10.8, 9);
    expect(thinnestWire(demand, lengthM, [areaMm2]).pickMm2).toBe(areaMm2);
    expect(thinnestWire(demand, lengthM * 1.01, [areaMm2]).pickMm2).toBeNull();
  }
});

// 1 mm² of copper at 20 °C: 17.241 Ω/km (IEC 60028); 40 K warmer × 1.1572.
test('a warm wire drops more', () => {
  const run = { lengthM: 500, areaMm2: 1, contactOhm: 0 };
  expect(wireOfArea(1).ohmPerKm20C).toBeCloseTo(17.241, 9);
  expect(loopOhmOf({ ...run, conductorC: 20 })).toBeCloseTo(17.241, 9);
  expect(loopOhmOf({ ...run, conductorC: 60 })).toBeCloseTo(17.241 * 1.1572, 9);
});

test.each([
  { why: 'the lowest allowed', volts: 10.8, verdict: 'tight' },
  { why: 'a tenth of the drop above', volts: 10.92, verdict: 'ok' },
  { why: 'below it', volts: 10.7, verdict: 'will-not-work' },
  { why: 'collapsed', volts: null, verdict: 'will-not-work' },
])('volts at the camera: $why', ({ volts, verdict }) => expect(judgeVolts(volts, 12, 10.8)).toBe(verdict));

test('the sun: no day in the polar night, the year turns over south of the line', () => {
  expect(extraterrestrialDay(70, 12)).toMatchObject({ sunsetHourAngleDeg: 0, h0KWh: 0 });
  expect(extraterrestrialDay(70, 6).sunsetHourAngleDeg).toBe(180);
  expect(tiltedDay({ latitudeDeg: 70, month: 12, clearness: 0.4, tiltDeg: 60, groundReflectance: 0.2 })).toMatchObject({
    factor: null,
    tiltedKWh: 0,
  });
  const year = (latitudeDeg: number) =>
    solarYear({
      latitudeDeg,
      tiltDeg: 60,
      clearness: Array.from({ length: 12 }, () => 0.45),
      panelWp: 60,
      performanceRatio: 0.7,
      batteryWh: 480,
      depthOfDischarge: 0.8,
      dischargeEfficiency: 0.9,
      loadW: 2,
    });
  expect(year(51.5).worstMonth).toBe(12);
  expect(year(-51.5).worstMonth).toBe(6);
  expect(year(70).panelWpForWorstMonth).toBeNull();
});

test.each([
  { why: 'a latitude of 95°', act: () => extraterrestrialDay(95, 1) },
  { why: 'a thirteenth month', act: () => extraterrestrialDay(50, 13) },
  { why: 'a class 9', act: () => poeClass(9) },
  { why: 'an AWG of 50', act: () => awgWire(50) },
  { why: 'a wire of no area', act: () => wireOfArea(0) },
])('a caller’s mistake is one: $why', ({ act }) => expect(act).toThrow(RangeError));

/** The volts that are left, found by halving: where what the wire passes equals what the load takes. */
function settles(supplyVolts: number, ohm: number, loadW: number): number | null {
  let [low, high] = [supplyVolts / 2, supplyVolts];
  if ((supplyVolts - low) * low < loadW * ohm) return null; // even at the most it can pass
  for (let round = 0; round < 200; round++) {
    const middle = (low + high) / 2;
    if ((supplyVolts - middle) * middle >= loadW * ohm) low = middle;
    else high = middle;
  }
  return low;
}

test('over a cable or a pair, another solution finds the same volts; the wire that is picked holds, the next thinner does not', () => {
  const sizes = [0.2, 0.33, 0.5, 0.75, 1, 1.5, 2.5, 4];
  fc.assert(
    fc.property(
      fc.constantFrom(5.1, 12, 24, 48),
      fc.double({ min: 0.55, max: 0.97, noNaN: true }),
      fc.double({ min: 0.5, max: 30, noNaN: true }),
      fc.double({ min: 0.5, max: 120, noNaN: true }),
      fc.integer({ min: -20, max: 75 }),
      fc.constantFrom(0, 0.12),
      fc.constantFrom(1, 1.55),
      (supplyVolts, share, loadW, lengthM, conductorC, contactOhm, resistance) => {
        const minVolts = supplyVolts * share;
        const ohmOf = (areaMm2: number, longM: number): number =>
          (2 * longM * 0.017241 * (1 + 0.00393 * (conductorC - 20)) * resistance) / areaMm2 + contactOhm;
        for (const areaMm2 of sizes) {
          const run = { lengthM, areaMm2: areaMm2 / resistance, conductorC, contactOhm };
          const expected = settles(supplyVolts, ohmOf(areaMm2, lengthM), loadW);
          const { loadVolts } = dropAtPower(supplyVolts, loadW, run);
          if (expected === null || loadVolts === null) expect(loadVolts).toBe(expected);
          else expect(loadVolts).toBeCloseTo(expected, 6);
        }
        const demand = { supplyVolts, minVolts, loadW, conductorC, contactOhm };
        const { pickMm2 } = thinnestWire(demand, lengthM, sizes, resistance);
        const holds = (areaMm2: number, longM: number): boolean =>
          (settles(supplyVolts, ohmOf(areaMm2, longM), loadW) ?? 0) >= minVolts * (1 - 1e-5);
        if (pickMm2 !== null) expect(holds(pickMm2, lengthM)).toBe(true);
        for (const thinner of sizes.filter((size) => size < (pickMm2 ?? 99) * (1 - 1e-4)))
          expect(holds(thinner, lengthM)).toBe(false);
        const longestM = longestRun(demand, 1 / resistance);
        if (longestM > 0) expect(holds(1, longestM * 0.999)).toBe(true);
        expect(holds(1, longestM * 1.01 + 0.01)).toBe(false);
      },
    ),
    runs(200),
  );
});

/** IEEE 802.3, written down once more: what a class reserves, what it gives, the highest that a type of switch grants. */
const RESERVES = [15.4, 4, 7, 15.4, 30, 45, 60, 75, 90];
const GIVES = [12.95, 3.84, 6.49, 12.95, 25.5, 40, 51, 62, 71.3];
const GRANTS = { 1: 3, 2: 4, 3: 6, 4: 8 } as const;

test('whatever hangs on a switch: reserved by class as the table says, by measure as the cable takes it', () => {
  const port = fc.record({
    class: fc.integer({ min: 0, max: 8 }),
    pdW: fc.double({ min: 0.5, max: 71, noNaN: true }),
    loopOhm: fc.double({ min: 0.1, max: 12.5, noNaN: true }),
  });
  const type = fc.constantFrom<1 | 2 | 3 | 4>(1, 2, 3, 4);
  fc.assert(
    fc.property(fc.array(port, { maxLength: 8 }), type, fc.integer({ min: 0, max: 400 }), (given, pseType, budgetW) => {
      const ports = given.map((one, at) => ({ ...one, port: at }));
      const common = { budgetW, pseType, pseVolts: 52, reserveFraction: 0.1, ports };
      const granted = ports.map((one) => Math.min(one.class, GRANTS[pseType]));
      const byClass = poeBudget({ ...common, mode: 'class' });
      expect(byClass.totalW).toBeCloseTo(
        granted.reduce((sum, one) => sum + (RESERVES[one] ?? 0), 0),
        6,
      );
      const left = ports.map(({ loopOhm, pdW }) => settles(52, loopOhm, pdW));
      const starved = ports.map(
        ({ pdW }, at) => pdW > (GIVES[granted[at] ?? 0] ?? 0) * (1 + 1e-6) || left[at] === null,
      );
      expect(byClass.ports.map(({ underPowered }) => underPowered)).toEqual(starved);
      const measured = poeBudget({ ...common, mode: 'measured' });
      for (const [at, volts] of left.entries())
        if (volts !== null) expect(measured.ports[at]?.reservedW).toBeCloseTo((52 * (ports[at]?.pdW ?? 0)) / volts, 4);
      if (starved.includes(true) || byClass.totalW > budgetW * (1 + 1e-6))
        expect(byClass.verdict).toBe('will-not-work');
      else if (byClass.totalW < budgetW * 0.9 - 1e-6) expect(byClass.verdict).toBe('ok');
    }),
  );
});
