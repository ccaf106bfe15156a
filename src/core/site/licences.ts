import { cheapestPacks, type LicencePurchase } from '../cost/licence-packs.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Site } from '../document/site.ts';

/** Seats of one destination: how many are used, included, and bought at the least cost. */
export interface LicenceCount {
  /** Of every camera that is drawn there, by a tap or as its need says; each takes the seats of its model. */
  readonly used: number;
  readonly included: number;
  /** `null` where no packs are sold that seat every camera. */
  readonly purchase: LicencePurchase | null;
}

/** Seats that are used at a destination, whether it counts them or not. */
export function licencesUsed({ cameras, models, taps }: Site, destinationId: string): number {
  const drawn = new Set(taps.flatMap((tap) => (tap.destinationId === destinationId ? tap.cameraId : [])));
  const licencesOf = new Map(models.map(({ id, seats }) => [id, seats]));
  let used = 0;
  for (const { id, modelId, need } of cameras)
    if (drawn.has(id) || need?.draws.some((draw) => draw.destinationId === destinationId))
      used += (modelId === null ? undefined : licencesOf.get(modelId)) ?? 1;
  return used;
}

/** The one count that Tap and Cost show; `null` where the destination is not known to count any. */
export function licenceCount(site: Site, { id, seats }: Pick<Destination, 'id' | 'seats'>): LicenceCount | null {
  if (!seats) return null;
  const used = licencesUsed(site, id);
  const { included, packs } = seats;
  return { used, included, purchase: cheapestPacks(used, included, packs) };
}

/** “2 × 3 and 1 × 10 seats for 344”. */
export function sayPacks(
  purchase: LicencePurchase | null,
  packs: readonly { readonly seats: number }[],
  currency: string,
): string {
  if (!purchase) return '';
  const bought = purchase.counts.flatMap((count, at) => (count > 0 ? `${count} × ${packs[at]?.seats}` : []));
  return bought.length === 0 ? '' : `${bought.join(' and ')} licences for ${currency} ${purchase.cost}`;
}
