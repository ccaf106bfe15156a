import type { Entry } from './chapters/journal/entry.ts';
import type { Stamp } from './command-parts.ts';
import { type Plan, planOf, type Site } from './site.ts';
import { type SiteCommand, withEntry } from './site-commands.ts';

/** One edit as it can be taken back: the plan before and after it, and what a person wrote down by it. */
export interface Edit {
  /** As the log told it: “Sluice rail: address changed”. */
  readonly label: string;
  readonly subject: string;
  readonly before: Plan;
  readonly after: Plan;
  /** The entry with what was written down; `null` for an edit of the plan. It changes when the edit is done again. */
  readonly entry: Entry | null;
}

export interface EditHistory {
  readonly done: readonly Edit[];
  readonly undone: readonly Edit[];
}

export const NO_EDITS: EditHistory = { done: [], undone: [] };

/** Plans share all that did not change, so an edit costs little; more than this nobody takes back. */
const MAX_EDITS = 200;

/** Something was measured, a note was said: neither can be made undone. */
const isEdit = ({ kind }: SiteCommand): boolean => kind !== 'recordMeasured' && kind !== 'note';

/** Takes an edit into the history; a new edit ends what could be done again. */
export function noteEdit(history: EditHistory, command: SiteCommand, before: Site, after: Site): EditHistory {
  if (!isEdit(command)) return history;
  const entry = after.journal.at(-1);
  const edit: Edit = {
    label: entry?.text ?? command.kind,
    subject: entry?.subject ?? 'site',
    before: planOf(before),
    after: planOf(after),
    entry: entry && hasWritten(entry) ? entry : null,
  };
  return { done: [...history.done, edit].slice(-MAX_EDITS), undone: [] };
}

const hasWritten = ({ facts, revokes }: Entry): boolean => facts.length > 0 || revokes.length > 0;

interface Moved {
  readonly site: Site;
  readonly history: EditHistory;
}

/**
 * Takes the last edit back: of the plan, which is all that undo can reach. What a person wrote down by it no longer counts,
 * and the journal tells so: it is never rewritten. Without an edit, nothing changes.
 */
export function undoEdit(site: Site, history: EditHistory, stamp: Stamp): Moved {
  const edit = history.done.at(-1);
  if (!edit) return { site, history };
  return {
    site: told({ ...edit.before, journal: site.journal }, 'Undone', edit, revoking(edit.entry), stamp),
    history: { done: history.done.slice(0, -1), undone: [...history.undone, edit] },
  };
}

/** Does again what was taken back last. */
export function redoEdit(site: Site, history: EditHistory, stamp: Stamp): Moved {
  const edit = history.undone.at(-1);
  if (!edit) return { site, history };
  const { entry } = edit;
  const written = { source: entry?.source ?? '', facts: entry?.facts ?? [], revokes: entry?.revokes ?? [] };
  const again = told({ ...edit.after, journal: site.journal }, 'Redone', edit, written, stamp);
  const redone = { ...edit, entry: entry && (again.journal.at(-1) ?? null) };
  return { site: again, history: { done: [...history.done, redone], undone: history.undone.slice(0, -1) } };
}

type Written = Pick<Entry, 'source' | 'facts' | 'revokes'>;

/** What makes an entry not count, nor what it took back itself. */
const revoking = (entry: Entry | null): Written => ({ source: '', facts: [], revokes: entry ? [entry.id] : [] });

const told = (site: Site, what: string, { label, subject }: Edit, written: Written, stamp: Stamp): Site =>
  withEntry(site, { kind: 'edit', subject, text: `${what}: ${label}`, refs: [], ...written }, stamp);
