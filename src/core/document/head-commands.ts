import type { Handlers } from './command-parts.ts';
import { words } from './command-parts.ts';
import type { Plan } from './site.ts';

/** What a site is called, and what is noted of it as a whole. */
export type HeadCommand = { readonly kind: 'changeSite'; readonly changed: Partial<Pick<Plan, 'name' | 'notes'>> };

export const HEAD_COMMANDS: Handlers<HeadCommand> = {
  changeSite: (site, { changed }) => ({
    site: { ...site, ...changed },
    log: words(
      'edit',
      'site',
      changed.name !== undefined && changed.name !== site.name
        ? `${site.name} now called ${changed.name}`
        : 'Notes of the site changed',
    ),
  }),
};
