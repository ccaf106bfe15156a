import type { ChangedAssumptions } from '../assumptions/assumptions.ts';
import type { Camera } from './chapters/cameras/camera.ts';
import type { Costing } from './chapters/costing/costing.ts';
import type { Destination } from './chapters/destinations/destination.ts';
import type { Gear } from './chapters/gear/gear.ts';
import type { Entry } from './chapters/journal/entry.ts';
import type { Link } from './chapters/links/link.ts';
import type { Model } from './chapters/models/model-card.ts';
import type { Network } from './chapters/networks/network.ts';
import type { DrawnPlan } from './chapters/plan/drawn-plan.ts';
import type { Reach } from './chapters/reach/reach.ts';
import type { Sky } from './chapters/sky/sky.ts';
import type { Tap } from './chapters/taps/tap.ts';
import type { SITE_VERSION } from './version.ts';

export const SITE_FORMAT = 'clear-tap/site';

/** What every site has, whatever its chapters. */
interface PlanHead {
  readonly format: typeof SITE_FORMAT;
  readonly version: typeof SITE_VERSION;
  readonly id: string;
  readonly name: string;
  readonly notes: string;
}

/**
 * What somebody decided: commands change it, undo takes it back. A line here is a chapter: the compiler then asks for it in
 * the two registries (`chapters/registry.ts`, `chapters/shapes.ts`), and nowhere else.
 */
export interface Plan extends PlanHead {
  readonly networks: readonly Network[];
  readonly reach: Reach;
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
export type ChapterName = Exclude<keyof Plan, keyof PlanHead>;

/** A site: its plan, and what happened and was measured. The journal only grows, and no undo reaches it. */
export interface Site extends Plan {
  readonly journal: readonly Entry[];
}

/** The plan alone. */
export function planOf({ journal: _, ...plan }: Site): Plan {
  return plan;
}
