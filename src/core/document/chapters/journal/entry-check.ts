import { type Check, type ChecksOf, flag, listOf, nested, orNull, record, text, word } from '../../../base/check.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { isMoment } from '../../../base/moment.ts';
import { idProblem } from '../../../base/schema-parts.ts';
import { checkPayload } from '../../payload/payload-check.ts';
import { type Entry, type Fact, KNOWN_HOWS, LOG_KINDS, type Ref } from './entry.ts';

// A journal has tens of thousands of facts: a general schema would take seconds over them, and opening a site waits for it.
// Each table has a check for each field of its type; a field without one does not compile.

const moment: Check = (value) => (typeof value === 'string' && isMoment(value) ? null : 'must be a time in UTC');
const id: Check = (value) => idProblem(value);

/** What JSON can carry: neither NaN nor Infinity, and no text beyond its limit. */
const factValue: Check = (value) =>
  typeof value === 'boolean' ||
  (typeof value === 'number' && Number.isFinite(value)) ||
  (typeof value === 'string' && value.length <= TEXT_LIMITS.evidence)
    ? null
    : 'must be a text, a number or yes or no';

const FACT: ChecksOf<Fact> = {
  subject: text(TEXT_LIMITS.subject, 1),
  quantity: text(TEXT_LIMITS.quantity, 1),
  value: factValue,
  how: word(KNOWN_HOWS),
};
const REF: ChecksOf<Ref> = { name: text(TEXT_LIMITS.refName, 1), value: text(TEXT_LIMITS.refValue) };
const ENTRY: ChecksOf<Entry> = {
  id,
  at: moment,
  kind: word(LOG_KINDS),
  subject: text(TEXT_LIMITS.subject, 1),
  text: text(TEXT_LIMITS.logText),
  refs: listOf(record<Ref>(REF), LIST_LIMITS.logRefs),
  source: text(TEXT_LIMITS.source),
  facts: listOf(record<Fact>(FACT), LIST_LIMITS.factsOfEntry),
  payload: orNull(checkPayload),
  revokes: listOf(id, LIST_LIMITS.journal),
  isPast: flag,
};

const checkEntry = record<Entry>(ENTRY);
const checkList = listOf(checkEntry, LIST_LIMITS.journal);

/** Why an entry cannot be kept: the place in it and the reason; `null` when it can. */
export const entryProblem = (value: unknown): string | null => checkEntry(value);

/** The same of a whole journal; that an id stands there once, too. */
export function journalProblem(value: unknown): string | null {
  const problem = checkList(value);
  if (problem) return nested('journal', problem);
  const seen = new Set<string>();
  for (const [at, { id: one }] of (value as readonly Entry[]).entries()) {
    if (seen.has(one)) return `journal[${at}].id: “${one}” stands there twice`;
    seen.add(one);
  }
  return null;
}
