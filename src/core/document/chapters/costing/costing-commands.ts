import { type Changed, type Handlers, itemOf, put, without, words } from '../../command-parts.ts';
import type { Site } from '../../site.ts';
import type { Costing, CostOption } from './costing.ts';

export type CostingCommand =
  | { readonly kind: 'setCosting'; readonly costing: Costing; readonly what: string }
  | { readonly kind: 'putOption'; readonly option: CostOption }
  | { readonly kind: 'removeOption'; readonly optionId: string };

const withOptions = (site: Site, options: readonly CostOption[], what: string): Changed => ({
  site: { ...site, costing: { ...site.costing, options } },
  log: words('edit', 'site', `Cost: ${what}`),
});

export const COSTING_COMMANDS: Handlers<CostingCommand> = {
  putOption: (site, { option }) => {
    const { options } = site.costing;
    const isNew = !options.some(({ id }) => id === option.id);
    return withOptions(site, put(options, option), `${option.name} ${isNew ? 'added' : 'changed'}`);
  },
  removeOption: (site, { optionId }) => {
    const { options } = site.costing;
    const { name } = itemOf(options, optionId, 'option');
    return withOptions(site, without(options, optionId), `${name} removed`);
  },
  setCosting: (site, { costing, what }) => ({
    site: { ...site, costing },
    log: words('edit', 'site', `Cost: ${what}`),
  }),
};
