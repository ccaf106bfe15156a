/** Whether something that was parsed is an object with names, no list and not nothing. */
export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
