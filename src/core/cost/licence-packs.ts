import { between, wholes } from '../base/range.ts';

/** Seats that are sold together. */
export interface LicencePack {
  readonly seats: number;
  readonly price: number;
}
/** What its numbers may be, wherever packs are sold. */
export const PACK_RANGES = { seats: wholes(1, 10_000), price: between(0, 1e9) } as const;

export interface LicencePurchase {
  readonly cost: number;
  readonly licencesBought: number;
  readonly spareLicences: number;
  /** How many of each pack, in the order given. */
  readonly counts: readonly number[];
}

/**
 * The cheapest combination of packs that seats every camera; of equals, more seats, then fewer packs.
 * Found over all numbers of seats (unbounded knapsack), never guessed from the price of one seat: nine seats may cost more
 * than ten. Takes time with seats times packs: the largest site that opens, 80,000 seats, some hundredths of a second.
 * @returns `null` where no pack is sold and the included ones do not do
 */
export function cheapestPacks(
  cameras: number,
  included: number,
  packs: readonly LicencePack[],
): LicencePurchase | null {
  const needed = Math.max(0, cameras - included);
  if (needed === 0)
    return { cost: 0, licencesBought: 0, spareLicences: Math.max(0, included - cameras), counts: packs.map(() => 0) };
  const largest = Math.max(0, ...packs.map(({ seats }) => seats));
  if (largest === 0) return null;
  const most = needed + largest - 1;
  // the cheapest way to buy exactly so many seats: its cost, its packs, and the pack that was bought last
  const costs = new Float64Array(most + 1).fill(Number.POSITIVE_INFINITY);
  const packCounts = new Int32Array(most + 1);
  const lastPacks = new Int32Array(most + 1).fill(-1);
  costs[0] = 0;
  for (let seats = 1; seats <= most; seats++)
    for (const [at, pack] of packs.entries()) {
      if (pack.seats === 0 || pack.seats > seats) continue;
      const cost = (costs[seats - pack.seats] ?? 0) + pack.price;
      const packCount = (packCounts[seats - pack.seats] ?? 0) + 1;
      const known = costs[seats] ?? 0;
      if (cost === Number.POSITIVE_INFINITY || known < cost) continue;
      if (known === cost && (packCounts[seats] ?? 0) <= packCount) continue;
      costs[seats] = cost;
      packCounts[seats] = packCount;
      lastPacks[seats] = at;
    }
  let bought = most;
  for (let seats = most; seats >= needed; seats--) if ((costs[seats] ?? 0) < (costs[bought] ?? 0)) bought = seats;
  const cost = costs[bought] ?? Number.POSITIVE_INFINITY;
  if (cost === Number.POSITIVE_INFINITY) return null;
  return { cost, licencesBought: bought, spareLicences: bought - needed, counts: countsOf(bought, packs, lastPacks) };
}

/** How many of each pack, from the last one back. */
function countsOf(bought: number, packs: readonly LicencePack[], lastPacks: Int32Array): readonly number[] {
  const counts = packs.map(() => 0);
  for (let seats = bought; seats > 0; ) {
    const at = lastPacks[seats] ?? -1;
    counts[at] = (counts[at] ?? 0) + 1;
    seats -= packs[at]?.seats ?? seats;
  }
  return counts;
}
