import { ValidationError } from 'yup';
import { LIST_LIMITS } from '../base/limits.ts';
import type { Entry } from './chapters/journal/entry.ts';
import { entryProblem } from './chapters/journal/entry-check.ts';
import { LIST_SHAPES, type ListName } from './chapters/shapes.ts';
import { brokenReference } from './references.ts';
import type { Site } from './site.ts';
import { SITE_VALUES } from './site-shape.ts';

type ValueName = keyof typeof SITE_VALUES;
const LIST_NAMES = Object.keys(LIST_SHAPES) as ListName[]; // Object.keys of a literal are its keys
const VALUE_NAMES = Object.keys(SITE_VALUES) as ValueName[];

/**
 * Why a changed document could not be opened again, in words with the place; `null` when it could. Looks only at what
 * differs from a document that fits, so that every edit can be asked: parts that both share are the same objects.
 * @param part `plan` leaves the journal to whoever writes the document: commands have clipped it, and each probe brings dozens
 * of facts
 */
export function refusalOf(fits: Site, changed: Site, part: 'all' | 'plan' = 'all'): string | null {
  for (const name of VALUE_NAMES) {
    const problem = changed[name] === fits[name] ? null : problemOf(SITE_VALUES[name], changed[name], name);
    if (problem) return problem;
  }
  let mayBreak = false;
  for (const name of LIST_NAMES) {
    if (changed[name] === fits[name]) continue;
    const list = lookOver(name, fits[name], changed[name]);
    if (list.problem) return list.problem;
    mayBreak ||= list.mayBreak;
  }
  if (part === 'all' && changed.journal !== fits.journal) {
    const problem = newEntryProblem(fits.journal, changed.journal);
    if (problem) return problem;
  }
  return mayBreak ? brokenReference(changed) : null;
}

/** Entries have ids of their own making, so only new ones are looked at. */
function newEntryProblem(before: readonly Entry[], after: readonly Entry[]): string | null {
  if (after.length > LIST_LIMITS.journal) return `journal: at most ${LIST_LIMITS.journal} fit, not ${after.length}.`;
  const fresh = freshIn(before, after);
  for (const { one, at } of fresh) {
    const problem = entryProblem(one);
    if (problem) return `journal[${at}] does not fit: ${problem}.`;
  }
  return isTwice(before, after, fresh) ? 'journal: an id stands there twice.' : null;
}

interface Checks {
  validateSync(value: unknown, options: { strict: true }): unknown;
}

function problemOf(schema: Checks, value: unknown, place: string): string | null {
  try {
    schema.validateSync(value, { strict: true });
    return null;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return `${place} does not fit: ${error.message}.`;
  }
}

interface LookedOver {
  readonly problem: string | null;
  readonly mayBreak: boolean;
}
const FITS: LookedOver = { problem: null, mayBreak: false };
const refused = (problem: string): LookedOver => ({ problem, mayBreak: false });

function lookOver<K extends ListName>(name: K, before: Site[K], after: Site[K]): LookedOver {
  const { item, most, identityKey: joints } = LIST_SHAPES[name];
  if (after.length > most) return refused(`${name}: at most ${most} fit, not ${after.length}.`);
  const fresh = freshIn<Site[K][number]>(before, after);
  for (const { one, at } of fresh) {
    const problem = problemOf(item, one, `${name}[${at}]`);
    if (problem) return refused(problem);
  }
  const hasNewJoints = ({ one, at }: Fresh<Site[K][number]>): boolean => {
    const old = before[at];
    return old === undefined || joints(old) !== joints(one);
  };
  return before.length !== after.length || fresh.some(hasNewJoints) ? { problem: null, mayBreak: true } : FITS;
}

interface Fresh<T> {
  readonly one: T;
  readonly at: number;
}

/** Items that a list did not have before. Most edits put one in the place of another; the record grows at its end. */
function freshIn<T>(before: readonly T[], after: readonly T[]): readonly Fresh<T>[] {
  const isInPlace = after.length === before.length || after[before.length - 1] === before.at(-1);
  const known = isInPlace ? null : new Set(before);
  return after.flatMap((one, at) => ((known ? known.has(one) : before[at] === one) ? [] : [{ one, at }]));
}

function isTwice(
  before: readonly { readonly id: string }[],
  after: readonly { readonly id: string }[],
  fresh: readonly Fresh<{ readonly id: string }>[],
): boolean {
  const ids = new Set(fresh.map(({ one }) => one.id));
  return ids.size < fresh.length || before.some((one) => ids.has(one.id) && after.includes(one));
}
