export interface Tolerance {
  readonly exact?: boolean;
  readonly rel?: number;
  readonly abs?: number;
}
/** "numbers to 1e-9 relative" is what `exact` means for a number. */
const EXACT_REL = 1e-9;

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

/** Path and reason of the first difference, or `null`. Keys that only `actual` has are ignored. */
export function difference(expected: unknown, actual: unknown, tolerance: Tolerance, path = ''): string | null {
  if (typeof expected === 'number' && typeof actual === 'number') {
    const allowed = Math.max(
      Math.abs(expected) * (tolerance.rel ?? (tolerance.exact ? EXACT_REL : 0)),
      tolerance.abs ?? 0,
    );
    if (Number.isFinite(actual) && Math.abs(expected - actual) <= allowed) return null;
  } else if (Array.isArray(expected) && Array.isArray(actual)) {
    if (expected.length !== actual.length) return `${path}: expected ${expected.length} entries, got ${actual.length}`;
    for (const [index, item] of expected.entries()) {
      const found = difference(item, actual[index], tolerance, `${path}[${index}]`);
      if (found) return found;
    }
    return null;
  } else if (isObject(expected) && isObject(actual) && !Array.isArray(actual)) {
    for (const [key, item] of Object.entries(expected)) {
      const found = difference(item, actual[key], tolerance, `${path}.${key}`);
      if (found) return found;
    }
    return null;
  } else if (expected === actual) return null;
  return `${path || 'result'}: expected ${JSON.stringify(expected)}, got ${JSON.stringify(actual)}`;
}
