import { between, wholes } from '../../../base/range.ts';

/** A place that a head comes back to: kept at the device under its token, and here with a name and a picture. */
export interface HeadPreset {
  readonly id: string;
  readonly name: string;
  /** As the device gave it. */
  readonly token: string;
  /** What it shows, as a small picture in a data URL; empty where none was taken. */
  readonly still: string;
}

export interface TourStop {
  readonly presetId: string;
  readonly dwellS: number;
}
/** A round through presets, in this order, without end. */
export interface Tour {
  readonly id: string;
  readonly name: string;
  readonly stops: readonly TourStop[];
}

export interface Steering {
  readonly presets: readonly HeadPreset[];
  readonly tours: readonly Tour[];
}

export const NO_STEERING: Steering = { presets: [], tours: [] };

export const STEERING_LIMITS = {
  presets: 64,
  tours: 8,
  stops: 32,
  token: 200,
  /** A picture of 240 × 135 at a fair quality is a third of it. */
  stillChars: 40_000,
} as const;

export const STEERING_RANGES = {
  dwellS: between(2, 3600, 's'),
  stillPx: wholes(16, 480, 'px'),
} as const;
/** Unless somebody says otherwise, a round stays so long at each place. */
export const USUAL_DWELL_S = 15;
