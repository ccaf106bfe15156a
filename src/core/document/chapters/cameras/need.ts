import { above0, between } from '../../../base/range.ts';
import type { TapUse } from '../../../base/tap-uses.ts';
import type { DetailLevel } from '../../../optics/detail-levels.ts';
import type { Sound } from '../models/model-card.ts';

/** What a picture is for, before any camera is chosen. */
export interface Need {
  readonly level: DetailLevel | null;
  readonly text: { readonly line: string; readonly charHeightMm: number } | null;
  /** Along the ground, to the far edge of what must be seen. */
  readonly distanceM: number;
  /** Of the zone at that distance. */
  readonly widthM: number;
  /** Where the zone begins; nothing may be unseen from here on. */
  readonly nearM: number;
  readonly atNight: boolean;
  readonly sound: Sound;
  readonly turns: boolean;
  readonly outdoors: boolean;
  readonly draws: readonly { readonly destinationId: string; readonly use: TapUse }[];
}

/** What its numbers may be. */
export const NEED_RANGES = {
  charHeightMm: above0(2000, 'mm'),
  distanceM: above0(1000, 'm'),
  widthM: above0(1000, 'm'),
  nearM: between(0, 1000, 'm'),
} as const;
