import type { Tap } from '../document/chapters/taps/tap.ts';
import type { Site } from '../document/site.ts';
import type { EvidenceIndex } from '../evidence/evidence-index.ts';
import { type Sheet, sheetFor } from './sheet.ts';

/** One sheet of many: which channel of its destination it fills. */
export interface PackSheet {
  readonly tap: Tap;
  /** From 1, in the order in which a destination is filled. */
  readonly channel: number;
  readonly sheet: Sheet;
}

/**
 * The sheets of one destination, or of the whole site destination by destination. Cameras that have a channel come by it, the
 * others behind them as they stand in the site.
 */
export function packOf(site: Site, index: EvidenceIndex, destinationId: string | null = null): readonly PackSheet[] {
  const order = new Map(
    site.cameras
      .map(({ id, channel }, at) => ({ id, at, channel: channel ?? Number.POSITIVE_INFINITY }))
      .sort((a, b) => (a.channel === b.channel ? a.at - b.at : a.channel - b.channel))
      .map(({ id }, place) => [id, place]),
  );
  const placeOf = ({ cameraId }: Tap): number => order.get(cameraId) ?? Number.POSITIVE_INFINITY;
  return site.destinations
    .filter(({ id }) => destinationId === null || id === destinationId)
    .flatMap(({ id }) =>
      site.taps
        .filter((tap) => tap.destinationId === id)
        .sort((a, b) => placeOf(a) - placeOf(b))
        .flatMap((tap) => {
          const sheet = sheetFor(site, index, tap);
          return sheet ? [{ tap, sheet }] : [];
        })
        .map((one, at) => ({ ...one, channel: at + 1 })),
    );
}
