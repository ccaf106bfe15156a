import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { difference } from './compare.ts';
import { OPERATIONS } from './operations.ts';

const vectors = Object.keys(OPERATIONS).flatMap((topic) => {
  const list: { name: string; input: { op: string }; expected: unknown; tolerance: object }[] = JSON.parse(
    readFileSync(join(__dirname, `${topic}.json`), 'utf8'),
  );
  return list.map((vector) => ({ topic, ...vector }));
});

test.each(vectors)('$topic: $name', ({ topic, input, expected, tolerance }) => {
  expect(difference(expected, OPERATIONS[topic]?.[input.op]?.(input), tolerance)).toBeNull();
});

test.each([
  { why: 'a number off by more than it may', expected: { a: 1 }, actual: { a: 1.1 }, tolerance: { rel: 0.01 } },
  { why: 'a missing key', expected: { a: null }, actual: {}, tolerance: { exact: true } },
  { why: 'an order changed', expected: [1, 2], actual: [2, 1], tolerance: { exact: true } },
  { why: 'not a number', expected: 1, actual: Number.NaN, tolerance: { abs: 1 } },
  { why: 'a list that is longer', expected: [1], actual: [1, 2], tolerance: { exact: true } },
])('the comparison notices $why', ({ expected, actual, tolerance }) =>
  expect(difference(expected, actual, tolerance)).not.toBeNull(),
);
