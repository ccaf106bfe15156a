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
