import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isDropped } from './rtp-sender.ts';

const numbers = (count: number): readonly number[] => Array.from({ length: count }, (_, at) => at + 1);

test('one packet in so many is dropped, evenly spread, and never the same place of each group', () => {
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 130 }), fc.integer({ min: 1, max: 6 }), (dropEvery, times) => {
      const dropped = numbers(dropEvery * dropEvery).filter((number) => isDropped(number, dropEvery));
      expect(dropped).toHaveLength(dropEvery);
      for (const [at, number] of dropped.slice(1).entries())
        expect(number - (dropped[at] ?? 0)).toBeGreaterThanOrEqual(dropEvery - 1);
      // A group of pictures of as many packets, or a multiple: its first packet comes through in most groups.
      const group = dropEvery * (times % dropEvery || 1);
      const starts = numbers(dropEvery).map((nth) => 1 + (nth - 1) * group);
      expect(starts.filter((number) => isDropped(number, dropEvery)).length).toBeLessThanOrEqual(dropEvery / 2);
    }),
  );
});
