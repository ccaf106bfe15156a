import { between } from '../../../base/range.ts';
/** Where the site lies under the sun. */
export interface Sky {
  readonly latitudeDeg: number | null;
  /** Share of the light that passes the air, each month (K_T), as somebody entered it; `null` as it usually is there. */
  readonly clearness: readonly number[] | null;
}

/** [A] A temperate year of the north: dull winter, clear summer. */
const TEMPERATE_CLEARNESS: readonly number[] = [0.33, 0.37, 0.41, 0.44, 0.46, 0.48, 0.49, 0.47, 0.44, 0.4, 0.35, 0.33];
const HALF_YEAR = 6;
/** South of the equator the same year begins half a year later. */
const SOUTHERN_CLEARNESS = [...TEMPERATE_CLEARNESS.slice(HALF_YEAR), ...TEMPERATE_CLEARNESS.slice(0, HALF_YEAR)];

export const UNKNOWN_SKY: Sky = { latitudeDeg: null, clearness: null };

/** The clearness of each month: as entered, else the usual year of its half of the earth. */
export const clearnessOf = ({ latitudeDeg, clearness }: Sky): readonly number[] =>
  clearness ?? ((latitudeDeg ?? 0) < 0 ? SOUTHERN_CLEARNESS : TEMPERATE_CLEARNESS);

/** What its numbers may be. */
export const SKY_RANGES = { latitudeDeg: between(-90, 90, '°'), clearness: between(0.05, 0.9) } as const;
