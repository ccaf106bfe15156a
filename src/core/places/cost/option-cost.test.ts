import { expect, test } from '@jest/globals';
import { alderMill } from '../../../standins/alder-mill.ts';
import { breakEvenMonth } from '../../cost/total-cost.ts';
import { type Costing, type CostOption, NO_CABLE_PRICES } from '../../document/chapters/costing/costing.ts';
import { breakEvenOf, costGround, judgeBreakEven, optionCost } from './option-cost.ts';

const COSTING: Costing = {
  currency: '€',
  years: 5,
  energyPrice: 0.3,
  priceRise: 0,
  perMetre: NO_CABLE_PRICES,
  options: [],
};
const GROUND = { licencesNeeded: 9, licencesAt: new Map(), camerasW: 0 };
const option = (more: Partial<CostOption>): CostOption => ({
  id: 'a',
  name: 'A',
  school: 'software',
  destinationId: null,
  lines: [],
  includedSeats: 3,
  packs: [
    { seats: 1, price: 37 },
    { seats: 3, price: 96 },
    { seats: 10, price: 270 },
  ],
  subscriptionPerMonth: 0,
  loadW: 0,
  ...more,
});

test('nine cameras, three seats included: two packs of three, as the vectors have it', () => {
  expect(optionCost(option({}), COSTING, GROUND)).toMatchObject({
    upfront: 192,
    total: 192,
    seats: { counts: [0, 2, 0] },
  });
});

test('what wears out is bought again when its years are over, and not in the last month', () => {
  const card = { label: 'card', price: 20, count: 2, everyYears: 2, of: null };
  // Bought at once, after two and after four years: 3 × 40.
  expect(optionCost(option({ lines: [card] }), COSTING, GROUND)).toMatchObject({ replacements: 80, total: 192 + 120 });
  expect(optionCost(option({ lines: [{ ...card, everyYears: 5, of: null }] }), COSTING, GROUND).replacements).toBe(0);
});

test('the sun sends no bill: a camera on a panel costs energy only in the months on the mains', () => {
  const mill = alderMill('2026-11-25T09:00:00.000Z');
  const onMains = (mainsMonths: readonly number[]) =>
    mill.cameras.map((camera) =>
      camera.feed?.sun ? { ...camera, feed: { ...camera.feed, sun: { ...camera.feed.sun, mainsMonths } } } : camera,
    );
  const without = { ...mill, cameras: mill.cameras.filter(({ id }) => id !== 'bee-stand') };
  expect(costGround(mill).camerasW).toBe(costGround(without).camerasW);
  // (2.2 + 3.2) / 2 = 2.7 W in three of twelve months.
  const winters = { ...mill, cameras: onMains([1, 11, 12]) };
  expect(costGround(winters).camerasW - costGround(without).camerasW).toBeCloseTo(2.7 / 4, 9);
});

test('the months add up to the total, prices rising or not', () => {
  for (const priceRise of [0, 0.04]) {
    const cost = optionCost(
      option({
        subscriptionPerMonth: 5,
        loadW: 20,
        lines: [{ label: 'disk', price: 100, count: 1, everyYears: 3, of: null }],
      }),
      { ...COSTING, priceRise },
      GROUND,
    );
    expect(cost.spentByMonth).toHaveLength(61);
    expect(cost.spentByMonth.at(-1)).toBeCloseTo(cost.total, 6);
  }
});

test('break-even month by month is that of the formula where nothing is bought again', () => {
  const a = option({
    lines: [{ label: 'dear', price: 300, count: 1, everyYears: null, of: null }],
    subscriptionPerMonth: 2,
  });
  const b = option({ subscriptionPerMonth: 14 });
  const [costA, costB] = [a, b].map((one) => optionCost(one, COSTING, GROUND));
  if (!costA || !costB) throw new Error('two costs');
  expect(breakEvenOf(costA, costB)).toBe(
    breakEvenMonth({ upfront: 492, perMonth: 2 }, { upfront: 192, perMonth: 14 }, 60),
  );
  expect(breakEvenOf(costA, costB)).toBe(25);
  expect(breakEvenOf(costB, costA)).toBeNull();
  expect(breakEvenOf(costA, costA)).toBe(0);
});

test.each([
  { month: 30, verdict: 'ok' },
  { month: 31, verdict: 'tight' },
  { month: 60, verdict: 'tight' },
  { month: null, verdict: 'will-not-work' },
])('paid back in month $month of five years: $verdict', ({ month, verdict }) =>
  expect(judgeBreakEven(month, 5)).toBe(verdict),
);

test('without packs that seat all, an option says so and has no seats', () => {
  expect(optionCost(option({ packs: [] }), COSTING, GROUND).seats).toBeNull();
});

test('a dual lens takes two seats, a camera without a model one', () => {
  const site = alderMill('2026-11-25T09:00:00.000Z');
  expect(costGround(site).licencesNeeded).toBe(site.cameras.length + 1);
});
