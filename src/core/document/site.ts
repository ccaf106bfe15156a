import type { ChangedAssumptions } from '../assumptions/assumptions.ts';
import type { Camera } from './chapters/cameras/camera.ts';
import { type Costing, EMPTY_COSTING } from './chapters/costing/costing.ts';
import type { Destination } from './chapters/destinations/destination.ts';
import type { Gear } from './chapters/gear/gear.ts';
import type { Entry } from './chapters/journal/entry.ts';
import type { Link } from './chapters/links/link.ts';
import type { Model } from './chapters/models/model-card.ts';
import type { Network } from './chapters/networks/network.ts';
import { type DrawnPlan, EMPTY_PLAN } from './chapters/plan/drawn-plan.ts';
import { type Sky, UNKNOWN_SKY } from './chapters/sky/sky.ts';
import type { Tap } from './chapters/taps/tap.ts';

export const SITE_FORMAT = 'clear-tap/site';
export const SITE_VERSION = 4;

/** What somebody decided: commands change it, undo takes it back. */
export interface Plan {
  readonly format: typeof SITE_FORMAT;
  readonly version: typeof SITE_VERSION;
  readonly id: string;
  readonly name: string;
  readonly notes: string;
  readonly networks: readonly Network[];
  readonly sky: Sky;
  readonly plan: DrawnPlan;
  readonly gear: readonly Gear[];
  readonly links: readonly Link[];
  readonly costing: Costing;
  /** Assumptions that somebody changed, by their id. */
  readonly assumptions: ChangedAssumptions;
  readonly models: readonly Model[];
  readonly cameras: readonly Camera[];
  readonly destinations: readonly Destination[];
  readonly taps: readonly Tap[];
}

/** A site: its plan, and what happened and was measured. The journal only grows, and no undo reaches it. */
export interface Site extends Plan {
  readonly journal: readonly Entry[];
}

export const emptySite = (id: string, name: string): Site => ({
  format: SITE_FORMAT,
  version: SITE_VERSION,
  id,
  name,
  notes: '',
  networks: [],
  sky: UNKNOWN_SKY,
  plan: EMPTY_PLAN,
  gear: [],
  links: [],
  costing: EMPTY_COSTING,
  assumptions: {},
  models: [],
  cameras: [],
  destinations: [],
  taps: [],
  journal: [],
});

/** The plan alone. */
export function planOf({ journal: _, ...plan }: Site): Plan {
  return plan;
}
