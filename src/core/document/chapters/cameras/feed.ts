import { above0, between, wholes } from '../../../base/range.ts';
import type { PowerWay } from '../../../base/ways.ts';
import type { SunFeed } from '../../../power/sun-feed.ts';

/** A handset that hangs on its charger. */
export interface ChargeCare {
  readonly limitPercent: number | null;
}

export interface Feed {
  readonly way: PowerWay;
  readonly sun: SunFeed | null;
  readonly charge: ChargeCare | null;
}

/** What its numbers may be. */
export const FEED_RANGES = {
  panelWp: above0(10_000, 'Wp'),
  tiltDeg: between(0, 90, '°'),
  batteryWh: above0(100_000, 'Wh'),
  drawnHoursPerDay: between(0, 24, 'hours'),
  shade: between(0, 1),
  month: wholes(1, 12),
  price: between(0, 1e7),
  limitPercent: between(1, 100, '%'),
} as const;
