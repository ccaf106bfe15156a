import { ValidationError } from 'yup';
import { brokenReference } from './references.ts';
import { SITE_LISTS, SITE_VALUES } from './site-schema.ts';
import type { Site } from './site-types.ts';

type ListName = keyof typeof SITE_LISTS;
type ValueName = keyof typeof SITE_VALUES;
const LIST_NAMES = Object.keys(SITE_LISTS) as ListName[]; // Object.keys of a literal are its keys
const VALUE_NAMES = Object.keys(SITE_VALUES) as ValueName[];

/** The record grows by thousands; each item of it has an id of its own making, so only new ones are looked at. */
const RECORD: ReadonlySet<ListName> = new Set(['evidence', 'log']);

/**
 * Why a changed document could not be opened again, in words with the place; `null` when it could. Looks only at what
 * differs from a document that fits, so that every edit can be asked: parts that both share are the same objects.
 */
export function refusalOf(fits: Site, changed: Site): string | null {
  for (const name of VALUE_NAMES) {
    const problem = changed[name] === fits[name] ? null : problemOf(SITE_VALUES[name], changed[name], name);
    if (problem) return problem;
  }
  let mayBreak = false;
  for (const name of LIST_NAMES) {
    if (changed[name] === fits[name]) continue;
    const problem = listRefusal(name, fits[name], changed[name]);
    if (problem) return problem;
    mayBreak ||= !RECORD.has(name);
  }
  return mayBreak ? brokenReference(changed) : null;
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

function listRefusal(
  name: ListName,
  before: readonly { id: string }[],
  after: readonly { id: string }[],
): string | null {
  const { item, most } = SITE_LISTS[name];
  if (after.length > most) return `${name}: at most ${most} fit, not ${after.length}.`;
  const known: ReadonlySet<unknown> = new Set(before);
  const added = after.flatMap((one, at) => (known.has(one) ? [] : [{ one, at }]));
  for (const { one, at } of added) {
    const problem = problemOf(item, one, `${name}[${at}]`);
    if (problem) return problem;
  }
  if (!RECORD.has(name)) return null;
  const ids = new Set(added.map(({ one }) => one.id));
  const isTwice = ids.size < added.length || before.some((one) => ids.has(one.id) && after.includes(one));
  return isTwice ? `${name}: an id stands there twice.` : null;
}
