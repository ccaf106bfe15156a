/** The same thing, or a list of the same words or numbers. */
const isAlike = (a: unknown, b: unknown): boolean =>
  a === b || (Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((part, at) => part === b[at]));

/** Whether two lists name the same things in the same order: what was worked out from the one holds for the other. */
export const areAlike = (before: readonly unknown[] | undefined, now: readonly unknown[]): boolean =>
  before !== undefined && before.length === now.length && now.every((part, at) => isAlike(before[at], part));

const isFacts = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Two records with as many names, and under each the same thing; or the same value. */
export function areAlikeFacts(before: unknown, now: unknown): boolean {
  if (before === now) return true;
  if (!isFacts(before) || !isFacts(now)) return isAlike(before, now);
  let more = 0;
  for (const name in now) {
    if (!isAlike(before[name], now[name])) return false;
    more += 1;
  }
  for (const _ in before) more -= 1;
  return more === 0;
}
