/** Whether a record has a field of its own, so that it can be read. */
export const hasOwn = <K extends string>(value: object, name: K): value is Record<K, unknown> =>
  Object.hasOwn(value, name);
