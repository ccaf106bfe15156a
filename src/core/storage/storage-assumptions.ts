/** Assumptions of the storage arithmetic: none is from a standard, each is shown as assumed where it is used. */
export const STORAGE_ASSUMPTIONS = {
  /** Share of a disk that a recorder may fill before it slows down. */
  usableFraction: 0.9,
  /** Container, index and database beside the payload. */
  overheadFraction: 0.02,
  /** The days that fit must be this many times the days wanted to count as comfortable. */
  comfortableFactor: 1.2,
  /** Sizes that disks are sold in, TB. */
  sizesSoldTB: [0.25, 0.5, 1, 2, 3, 4, 6, 8, 10, 12, 16, 18, 20, 24],
} as const;
