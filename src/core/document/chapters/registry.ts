import type { ChapterName, Plan } from '../site.ts';
import { ASSUMPTION_COMMANDS } from './assumptions/assumption-commands.ts';
import { CAMERA_COMMANDS } from './cameras/camera-commands.ts';
import { EMPTY_COSTING } from './costing/costing.ts';
import { COSTING_COMMANDS } from './costing/costing-commands.ts';
import { DESTINATION_COMMANDS } from './destinations/destination-commands.ts';
import { GEAR_COMMANDS } from './gear/gear-commands.ts';
import { LINK_COMMANDS } from './links/link-commands.ts';
import { MODEL_COMMANDS } from './models/model-commands.ts';
import { NETWORK_COMMANDS } from './networks/network-commands.ts';
import { EMPTY_PLAN } from './plan/drawn-plan.ts';
import { PLAN_COMMANDS } from './plan/plan-commands.ts';
import { UNKNOWN_REACH } from './reach/reach.ts';
import { REACH_COMMANDS } from './reach/reach-commands.ts';
import { UNKNOWN_SKY } from './sky/sky.ts';
import { SKY_COMMANDS } from './sky/sky-commands.ts';
import { TAP_COMMANDS } from './taps/tap-commands.ts';

interface Chapter<T> {
  /** As it stands in a new site. */
  readonly empty: T;
  readonly commands: object;
}

/** What a page needs of each chapter from the first: its value in a new site, and its commands. Its shape comes later. */
export const CHAPTERS = {
  networks: { empty: [], commands: NETWORK_COMMANDS },
  reach: { empty: UNKNOWN_REACH, commands: REACH_COMMANDS },
  sky: { empty: UNKNOWN_SKY, commands: SKY_COMMANDS },
  plan: { empty: EMPTY_PLAN, commands: PLAN_COMMANDS },
  gear: { empty: [], commands: GEAR_COMMANDS },
  links: { empty: [], commands: LINK_COMMANDS },
  costing: { empty: EMPTY_COSTING, commands: COSTING_COMMANDS },
  assumptions: { empty: {}, commands: ASSUMPTION_COMMANDS },
  models: { empty: [], commands: MODEL_COMMANDS },
  cameras: { empty: [], commands: CAMERA_COMMANDS },
  destinations: { empty: [], commands: DESTINATION_COMMANDS },
  taps: { empty: [], commands: TAP_COMMANDS },
} as const satisfies { readonly [K in ChapterName]: Chapter<Plan[K]> };
