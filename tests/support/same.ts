import { isDeepStrictEqual } from 'node:util';
import { expect } from '@jest/globals';

/** As `toEqual`, for what is large or compared a thousand times: only where something differs is it asked to say what. */
export function expectSame(actual: unknown, expected: unknown): void {
  if (!isDeepStrictEqual(actual, expected)) expect(actual).toEqual(expected);
}
