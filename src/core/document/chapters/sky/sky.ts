import { between } from '../../../base/range.ts';
/** Where the site lies under the sun. */
export interface Sky {
  readonly latitudeDeg: number | null;
  /** Share of the light that passes the air, each month (K_T). */
  readonly clearness: readonly number[];
}

/** [A] A temperate year: dull winter, clear summer. */
const TEMPERATE_CLEARNESS = [0.33, 0.37, 0.41, 0.44, 0.46, 0.48, 0.49, 0.47, 0.44, 0.4, 0.35, 0.33] as const;
export const UNKNOWN_SKY: Sky = { latitudeDeg: null, clearness: TEMPERATE_CLEARNESS };

/** What its numbers may be. */
export const SKY_RANGES = { latitudeDeg: between(-90, 90, '°'), clearness: between(0.05, 0.9) } as const;
