/** The same thing, or a list of the same words or numbers. */
const isAlike = (a: unknown, b: unknown): boolean =>
  a === b || (Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((part, at) => part === b[at]));

/** Whether two lists name the same things in the same order: what was worked out from the one holds for the other. */
export const areAlike = (before: readonly unknown[] | undefined, now: readonly unknown[]): boolean =>
  before !== undefined && before.length === now.length && now.every((part, at) => isAlike(before[at], part));
