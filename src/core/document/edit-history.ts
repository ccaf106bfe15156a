import type { Evidence } from './chapters/journal/evidence.ts';
import type { LogEntry } from './chapters/journal/log.ts';
import { clippedEntry, type Stamp } from './command-parts.ts';
import { condenseEvidence, condenseLog } from './condense.ts';
import type { Site } from './site.ts';
import type { SiteCommand } from './site-commands.ts';

/** What a person can edit; the record (evidence and log) is not among it. */
type Plan = Omit<Site, 'format' | 'version' | 'id' | 'evidence' | 'log'>;

/** One edit as it can be taken back: the plan before and after it, and what a person confirmed by it. */
export interface Edit {
  /** As the log told it: “Sluice rail: address changed”. */
  readonly label: string;
  readonly subject: string;
  readonly before: Plan;
  readonly after: Plan;
  readonly confirmed: readonly Evidence[];
}

export interface EditHistory {
  readonly done: readonly Edit[];
  readonly undone: readonly Edit[];
}

export const NO_EDITS: EditHistory = { done: [], undone: [] };

/** Plans share all that did not change, so an edit costs little; more than this nobody takes back. */
const MAX_EDITS = 200;

const planOf = (site: Site): Plan => {
  const { format, version, id, evidence, log, ...plan } = site;
  return plan;
};

/** A probe measured something and a note was said: neither can be made undone. */
const isEdit = (command: SiteCommand): boolean => command.kind !== 'recordProbe' && command.kind !== 'note';

/** Takes an edit into the history; a new edit ends what could be done again. */
export function noteEdit(history: EditHistory, command: SiteCommand, before: Site, after: Site): EditHistory {
  if (!isEdit(command)) return history;
  const entry = after.log.at(-1);
  const edit: Edit = {
    label: entry?.text ?? command.kind,
    subject: entry?.subject ?? 'site',
    before: planOf(before),
    after: planOf(after),
    confirmed: addedTo(before.evidence, after.evidence),
  };
  return { done: [...history.done, edit].slice(-MAX_EDITS), undone: [] };
}

/** What one list has more than the other; both grow at their end, unless the record was condensed meanwhile. */
function addedTo(before: readonly Evidence[], after: readonly Evidence[]): readonly Evidence[] {
  if (after === before) return [];
  if (after.length >= before.length) return after.slice(before.length);
  const known = new Set(before);
  return after.filter((item) => !known.has(item));
}

interface Moved {
  readonly site: Site;
  readonly history: EditHistory;
}

/**
 * Takes the last edit back. What was measured since stays, and the log tells that it was taken back: a record is never
 * rewritten. Without an edit, nothing changes.
 */
export function undoEdit(site: Site, history: EditHistory, stamp: Stamp): Moved {
  const edit = history.done.at(-1);
  if (!edit) return { site, history };
  const gone = new Set(edit.confirmed.map(({ id }) => id));
  const evidence = gone.size === 0 ? site.evidence : site.evidence.filter(({ id }) => !gone.has(id));
  return {
    site: { ...site, ...edit.before, evidence, log: condenseLog([...site.log, logLine('Undone', edit, stamp)], stamp) },
    history: { done: history.done.slice(0, -1), undone: [...history.undone, edit] },
  };
}

/** Does again what was taken back last. */
export function redoEdit(site: Site, history: EditHistory, stamp: Stamp): Moved {
  const edit = history.undone.at(-1);
  if (!edit) return { site, history };
  const evidence =
    edit.confirmed.length === 0 ? site.evidence : condenseEvidence([...site.evidence, ...edit.confirmed]);
  return {
    site: {
      ...site,
      ...edit.after,
      evidence,
      log: condenseLog([...site.log, logLine('Done again', edit, stamp)], stamp),
    },
    history: { done: [...history.done, edit], undone: history.undone.slice(0, -1) },
  };
}

const logLine = (what: string, { label, subject }: Edit, { at, newId }: Stamp): LogEntry =>
  clippedEntry({ id: newId(), at, kind: 'edit', subject, text: `${what}: ${label}`, refs: [] });
