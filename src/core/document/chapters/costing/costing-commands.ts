import { type Handlers, words } from '../../command-parts.ts';
import type { Costing } from './costing.ts';

export type CostingCommand = { readonly kind: 'setCosting'; readonly costing: Costing; readonly what: string };

export const COSTING_COMMANDS: Handlers<CostingCommand> = {
  setCosting: (site, { costing, what }) => ({
    site: { ...site, costing },
    log: words('edit', 'site', `Cost: ${what}`),
  }),
};
