import { expect, test } from '@jest/globals';
import { FEED, JOINED, siteOf } from '../../../../tests/support/planned-sites.ts';
import type { Site } from '../../document/site.ts';
import { shoppingCsv } from '../../handover/shopping-list.ts';
import { planLines, sumOfPlan, withPlanLines } from './plan-lines.ts';

test('the plan as a bill: each thing once, however often it is taken, and what has no price is no zero', () => {
  const base = siteOf({ links: [{ ...FEED, lengthM: 12.3 }, ...JOINED] });
  const site: Site = {
    ...base,
    costing: { ...base.costing, perMetre: { ...base.costing.perMetre, 'network-cable': 0.5 } },
    cameras: base.cameras.map((one) => ({ ...one, memoryCard: { sizeGB: 64, price: null } })),
  };
  const lines = planLines(site);
  expect(lines.find(({ of }) => of === 'cable:network-cable')).toMatchObject({ count: 33, price: 0.5 });
  expect(lines.find(({ label }) => label === 'SD card of 64 GB')).toMatchObject({ count: 1, price: null });
  expect(new Set(lines.map(({ of }) => of)).size).toBe(lines.length);
  const byHand = { label: 'Ladder', price: 80, count: 1, everyYears: null, of: null };
  const once = withPlanLines([byHand], lines);
  expect(withPlanLines(once, lines)).toEqual(once);
  const priced = lines.filter(({ price }) => price !== null);
  expect(once.reduce((sum, { price, count }) => sum + price * count, 0)).toBeCloseTo(80 + sumOfPlan(priced).total, 9);
  expect(withPlanLines(once, [])).toEqual([byHand]);
  expect(shoppingCsv(lines, '€')).toContain('SD card of 64 GB,1,pieces,,,c');
});
