import { clipText } from '../base/clip.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import type { Evidence, LogEntry, Site } from './site-types.ts';

/** Time and ids come from outside: core has no clock and no randomness of its own. */
export interface Stamp {
  readonly at: string;
  readonly newId: () => string;
}

/** What a command does: the site as it then is, and its line of the log. */
export type Draft = Omit<LogEntry, 'id' | 'at'>;
export type Changed = { readonly site: Site; readonly log: Draft };

// Texts of the record come from cameras, names and notes: here they are clipped to what a site can keep, and nowhere else.

export const clippedEntry = (entry: LogEntry): LogEntry => ({
  ...entry,
  subject: clipText(entry.subject, TEXT_LIMITS.subject),
  text: clipText(entry.text, TEXT_LIMITS.logText),
  refs: entry.refs.slice(0, LIST_LIMITS.logRefs).map(({ name, value }) => ({
    name: clipText(name, TEXT_LIMITS.refName),
    value: clipText(value, TEXT_LIMITS.refValue),
  })),
});

export const clippedEvidence = (item: Evidence): Evidence => ({
  ...item,
  quantity: clipText(item.quantity, TEXT_LIMITS.quantity),
  value: typeof item.value === 'string' ? clipText(item.value, TEXT_LIMITS.evidence) : item.value,
  source: clipText(item.source, TEXT_LIMITS.source),
});
