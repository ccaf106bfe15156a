import { between, wholes } from '../base/range.ts';

/** Seats that are sold together. */
export interface SeatPack {
  readonly seats: number;
  readonly price: number;
}
/** What its numbers may be, wherever packs are sold. */
export const PACK_RANGES = { seats: wholes(1, 10_000), price: between(0, 1e9) } as const;

export interface SeatPurchase {
  readonly cost: number;
  readonly seatsBought: number;
  readonly spareSeats: number;
  /** How many of each pack, in the order given. */
  readonly counts: readonly number[];
}

/** More seats than any house: the table below has a row for each. */
const MAX_SEATS = 10_000;

/**
 * The cheapest combination of packs that seats every camera; of equals, more seats, then fewer packs.
 * Found over all numbers of seats (unbounded knapsack), never guessed from the price of one seat: nine seats may cost more
 * than ten.
 */
export function cheapestPacks(cameras: number, included: number, packs: readonly SeatPack[]): SeatPurchase | null {
  const needed = Math.max(0, cameras - included);
  const none = packs.map(() => 0);
  if (needed === 0) return { cost: 0, seatsBought: 0, spareSeats: Math.max(0, included - cameras), counts: none };
  if (needed > MAX_SEATS) throw new RangeError(`cameras: expected up to ${MAX_SEATS} seats, got ${needed}`);
  const usable = packs.filter(({ seats }) => seats > 0);
  if (usable.length === 0) return null;
  const most = needed + Math.max(...usable.map(({ seats }) => seats)) - 1;
  // best[s]: the cheapest way to buy exactly s seats.
  const best: ({ cost: number; packCount: number; counts: readonly number[] } | null)[] = [
    { cost: 0, packCount: 0, counts: none },
  ];
  for (let seats = 1; seats <= most; seats++) {
    best[seats] = null;
    for (const [at, pack] of packs.entries()) {
      const before = pack.seats > 0 && pack.seats <= seats ? best[seats - pack.seats] : null;
      if (!before) continue;
      const cost = before.cost + pack.price;
      const packCount = before.packCount + 1;
      const known = best[seats];
      if (known && (known.cost < cost || (known.cost === cost && known.packCount <= packCount))) continue;
      best[seats] = { cost, packCount, counts: before.counts.map((n, i) => (i === at ? n + 1 : n)) };
    }
  }
  let chosen: SeatPurchase | null = null;
  for (let seats = most; seats >= needed; seats--) {
    const way = best[seats];
    if (way && (!chosen || way.cost < chosen.cost))
      chosen = { cost: way.cost, seatsBought: seats, spareSeats: seats - needed, counts: way.counts };
  }
  return chosen;
}
