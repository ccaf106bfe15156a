import { hasOwn } from '../../../base/has-own.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { isMoment } from '../../../base/moment.ts';
import { idProblem } from '../../../base/schema-parts.ts';
import { type Entry, type Fact, KNOWN_HOWS, LOG_KINDS, type Ref } from './entry.ts';

// A journal has tens of thousands of facts: a general schema would take seconds over them, and opening a site waits for it.
// Each table has a check for each field of its type; a field without one does not compile.

/** What is wrong with a value, in words; `null` when nothing is. */
type Check = (value: unknown) => string | null;
type ChecksOf<T> = { readonly [K in keyof T]-?: Check };

const text =
  (max: number, min = 0): Check =>
  (value) => {
    if (typeof value !== 'string') return 'must be a text';
    if (value.length < min) return 'must not be empty';
    return value.length > max ? `must be at most ${max} characters` : null;
  };
function word(words: readonly string[]): Check {
  const known: ReadonlySet<unknown> = new Set(words);
  return (value) => (known.has(value) ? null : `must be one of ${words.join(', ')}`);
}
const moment: Check = (value) => (typeof value === 'string' && isMoment(value) ? null : 'must be a time in UTC');
const id: Check = (value) => idProblem(value);

/** What JSON can carry: neither NaN nor Infinity, and no text beyond its limit. */
const factValue: Check = (value) =>
  typeof value === 'boolean' ||
  (typeof value === 'number' && Number.isFinite(value)) ||
  (typeof value === 'string' && value.length <= TEXT_LIMITS.evidence)
    ? null
    : 'must be a text, a number or yes or no';

/** A record with just these fields, each as its check wants it. */
function record<T>(checks: ChecksOf<T>): Check {
  const names = Object.keys(checks) as (keyof T & string)[]; // Object.keys of a literal are its keys
  const fields = names.map((name) => ({ name, check: checks[name] }));
  return (value) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return 'must be a record';
    for (const { name, check } of fields) {
      const problem = hasOwn(value, name) ? check(value[name]) : 'is missing';
      if (problem) return nested(`.${name}`, problem);
    }
    // all are there: a record that has no more has just these
    const own = Object.keys(value);
    if (own.length === fields.length) return null;
    return nested(`.${own.find((name) => !hasOwn(checks, name))}`, 'is unknown here');
  };
}

function listOf(item: Check, most: number): Check {
  return (value) => {
    if (!Array.isArray(value)) return 'must be a list';
    if (value.length > most) return `at most ${most} fit, not ${value.length}`;
    for (let at = 0; at < value.length; at++) {
      const problem = item(value[at]);
      if (problem) return nested(`[${at}]`, problem);
    }
    return null;
  };
}

/** Of a problem below: the place goes before, the words stay. */
const nested = (place: string, problem: string): string => {
  const isPlaced = problem.startsWith('.') || problem.startsWith('[');
  return isPlaced ? `${place}${problem}` : `${place} ${problem}`;
};

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
  revokes: listOf(id, LIST_LIMITS.journal),
  isPast: (value) => (typeof value === 'boolean' ? null : 'must be yes or no'),
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
