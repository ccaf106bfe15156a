import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cheapestPacks, type LicencePack } from './licence-packs.ts';
import { breakEvenMonth, totalCost } from './total-cost.ts';

/** Every combination tried: what the table must agree with. */
function cheapestByTrying(needed: number, packs: readonly LicencePack[]): number {
  const [first, ...rest] = packs;
  if (needed <= 0) return 0;
  if (!first) return Number.POSITIVE_INFINITY;
  let best = Number.POSITIVE_INFINITY;
  for (let count = 0; count <= Math.ceil(needed / first.seats); count++)
    best = Math.min(best, count * first.price + cheapestByTrying(needed - count * first.seats, rest));
  return best;
}

test('the cheapest combination is found, not guessed', () => {
  const ladders: LicencePack[][] = [
    [
      { seats: 1, price: 37 },
      { seats: 3, price: 96 },
      { seats: 10, price: 270 },
    ],
    [
      { seats: 4, price: 90 },
      { seats: 7, price: 140 },
    ],
    [{ seats: 5, price: 11 }],
  ];
  for (const packs of ladders)
    for (let cameras = 1; cameras <= 25; cameras++)
      expect(cheapestPacks(cameras, 2, packs)?.cost).toBe(cheapestByTrying(cameras - 2, packs));
});

test('whatever packs are sold, none is cheaper than what is found', () => {
  const pack = fc.record({ seats: fc.integer({ min: 1, max: 9 }), price: fc.integer({ min: 1, max: 300 }) });
  fc.assert(
    fc.property(
      fc.array(pack, { minLength: 1, maxLength: 4 }),
      fc.integer({ min: 0, max: 20 }),
      fc.integer({ min: 0, max: 8 }),
      (packs, cameras, included) => {
        const found = cheapestPacks(cameras, included, packs);
        expect(found?.cost).toBe(cheapestByTrying(cameras - included, packs));
        const bought = packs.reduce((sum, { seats }, at) => sum + seats * (found?.counts[at] ?? 0), 0);
        expect(bought).toBeGreaterThanOrEqual(cameras - included);
      },
    ),
  );
});

test('of equals, more seats, then fewer packs', () => {
  const packs = [
    { seats: 1, price: 10 },
    { seats: 2, price: 20 },
    { seats: 3, price: 20 },
  ];
  expect(cheapestPacks(2, 0, packs)).toEqual({ cost: 20, licencesBought: 3, spareLicences: 1, counts: [0, 0, 1] });
});

test('the largest site that opens is seated too: 5,000 cameras of 16 seats each', () => {
  const packs = [
    { seats: 10_000, price: 900 },
    { seats: 7, price: 1 },
  ];
  // 8 × 10,000 seats would cost 7,200; 11,429 packs of seven seat 80,003 for 11,429: by the large ones it is cheaper
  expect(cheapestPacks(80_000, 0, packs)).toEqual({
    cost: 7200,
    licencesBought: 80_000,
    spareLicences: 0,
    counts: [8, 0],
  });
});

test.each([
  {
    why: 'enough is included',
    cameras: 3,
    packs: [],
    found: { cost: 0, licencesBought: 0, spareLicences: 1, counts: [] },
  },
  { why: 'nothing is sold', cameras: 9, packs: [], found: null },
  { why: 'nothing is sold, and one is missing', cameras: 5, packs: [], found: null },
  { why: 'a pack of no seats seats nobody', cameras: 9, packs: [{ seats: 0, price: 1 }], found: null },
])('$why', ({ cameras, packs, found }) => expect(cheapestPacks(cameras, 4, packs)).toEqual(found));

test('an option whose seats cannot be bought says so', () => {
  const option = {
    years: 2,
    hardware: 100,
    cameras: 9,
    included: 1,
    packs: [],
    subscriptionPerMonth: 0,
    loadW: 0,
    energyPrice: 0,
    priceRise: 0,
  };
  expect(totalCost(option)).toMatchObject({ seats: null, upfront: 100, total: 100 });
  expect(() => totalCost({ ...option, years: 0 })).toThrow(RangeError);
});

// 480 + 4m ≤ 120 + 22m first holds at m = 20.
test('the month in which the dearer box has paid for itself', () => {
  expect(breakEvenMonth({ upfront: 480, perMonth: 4 }, { upfront: 120, perMonth: 22 }, 60)).toBe(20);
  expect(breakEvenMonth({ upfront: 480, perMonth: 4 }, { upfront: 120, perMonth: 22 }, 19)).toBeNull();
});
