import type { LogEntry, Site } from './site-types.ts';

/** Time and ids come from outside: core has no clock and no randomness of its own. */
export interface Stamp {
  readonly at: string;
  readonly newId: () => string;
}

/** What a command does: the site as it then is, and its line of the log. */
export type Draft = Omit<LogEntry, 'id' | 'at'>;
export type Changed = { readonly site: Site; readonly log: Draft };
