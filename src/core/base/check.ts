import { hasControl } from './control-signs.ts';
import { hasOwn } from './has-own.ts';

// Checks of what lies in a journal, by tables: a general schema would take seconds over tens of thousands of facts.

/** What is wrong with a value, in words; `null` when nothing is. */
export type Check = (value: unknown) => string | null;
export type ChecksOf<T> = { readonly [K in keyof T]-?: Check };

export const text =
  (max: number, min = 0): Check =>
  (value) => {
    if (typeof value !== 'string') return 'must be text';
    if (value.length < min) return 'must not be empty';
    return value.length > max ? `must be at most ${max} characters` : null;
  };
/** A text on one line, without control signs. */
export const line =
  (max: number): Check =>
  (value) =>
    text(max)(value) ?? (hasControl(String(value)) ? 'must not contain line breaks or control characters' : null);
export function word(words: readonly string[]): Check {
  const known: ReadonlySet<unknown> = new Set(words);
  return (value) => (known.has(value) ? null : `must be one of ${words.join(', ')}`);
}
/** A record with just these fields, each as its check wants it. */
export function record<T>(checks: ChecksOf<T>): Check {
  const names = Object.keys(checks) as (keyof T & string)[]; // Object.keys of a literal are its keys
  const fields = names.map((name) => ({ name, check: checks[name] }));
  return (value) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return 'must be an object';
    for (const { name, check } of fields) {
      const problem = hasOwn(value, name) ? check(value[name]) : 'is missing';
      if (problem) return nested(`.${name}`, problem);
    }
    // all are there: a record that has no more has just these
    const own = Object.keys(value);
    if (own.length === fields.length) return null;
    return nested(`.${own.find((name) => !hasOwn(checks, name))}`, 'is not a known field');
  };
}

/** The same, where each field may be absent. */
export function part<T>(checks: ChecksOf<T>): Check {
  return (value) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return 'must be an object';
    for (const [name, one] of Object.entries(value)) {
      const check: Check = hasOwn(checks, name) ? checks[name as keyof T] : () => 'is not a known field'; // a name of the table
      const problem = check(one);
      if (problem) return nested(`.${name}`, problem);
    }
    return null;
  };
}

export function listOf(item: Check, most: number): Check {
  return (value) => {
    if (!Array.isArray(value)) return 'must be a list';
    if (value.length > most) return `at most ${most} allowed, not ${value.length}`;
    for (let at = 0; at < value.length; at++) {
      const problem = item(value[at]);
      if (problem) return nested(`[${at}]`, problem);
    }
    return null;
  };
}

/** Of a problem below: the place goes before, the words stay. */
export const nested = (place: string, problem: string): string => {
  const isPlaced = problem.startsWith('.') || problem.startsWith('[');
  return isPlaced ? `${place}${problem}` : `${place} ${problem}`;
};

/** The check, or nothing where it was left blank on purpose. */
export const orNull =
  (check: Check): Check =>
  (value) =>
    value === null ? null : check(value);
export const flag: Check = (value) => (typeof value === 'boolean' ? null : 'must be yes or no');
/** A whole number of these bounds. */
export const whole =
  (min: number, max: number): Check =>
  (value) =>
    number(min, max)(value) ?? (Number.isInteger(value) ? null : 'must be a whole number');
/** A number of these bounds. */
export const number =
  (min: number, max: number): Check =>
  (value) =>
    typeof value === 'number' && value >= min && value <= max ? null : `must be a number from ${min} to ${max}`;
/** Any number that JSON can carry. */
export const finite: Check = (value) => (Number.isFinite(value) ? null : 'must be a number');
