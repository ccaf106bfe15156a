import { wholes } from '../../../base/range.ts';
import { CARD_RANGES } from '../../../firmware/memory-card.ts';

/** Largest image that is taken in. */
export const MOST_IMAGE_BYTES = 512 * 1024 * 1024;

export const REFLASH_RANGES = {
  imageBytes: wholes(1, MOST_IMAGE_BYTES, 'bytes'),
  cardBytes: CARD_RANGES.bytes,
  partitionMiB: wholes(1, 2 * 1024 * 1024, 'MiB'),
} as const;
