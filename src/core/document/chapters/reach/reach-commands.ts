import { type Handlers, words } from '../../command-parts.ts';
import type { Reach } from './reach.ts';

/** Who may reach what, said anew; `what` tells it. */
export type ReachCommand = { readonly kind: 'setReach'; readonly reach: Reach; readonly what: string };

export const REACH_COMMANDS: Handlers<ReachCommand> = {
  setReach: (site, { reach, what }) => ({ site: { ...site, reach }, log: words('address', 'site', what) }),
};
