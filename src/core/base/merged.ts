/**
 * Several records as one, of a name that stands twice the last. The first must be a new one, which nobody else has: it is
 * added to. As `{ ...a, ...b }`, which in V8 adds every name behind the first record one by one: of records with a dozen
 * names each that takes ten times as long, and rules ask for such records at every edit.
 */
export function merged<A extends object, B extends object>(fresh: A, b: B): A & B;
export function merged<A extends object, B extends object, C extends object>(fresh: A, b: B, c: C): A & B & C;
export function merged<A extends object, B extends object, C extends object, D extends object>(
  ...records: [A, B, C, D]
): A & B & C & D;
export function merged(fresh: object, ...records: readonly object[]): object {
  return Object.assign(fresh, ...records);
}
