import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { shareInterval } from './wilson.ts';

// Source: values as R's prop.test(x, n, correct = FALSE) prints them.
test.each([
  { events: 1, of: 90, low: 0.00196, high: 0.06032 },
  { events: 0, of: 427, low: 0, high: 0.00892 },
  { events: 81, of: 263, low: 0.2553, high: 0.3662 },
])('$events of $of', ({ events, of, low, high }) => {
  const interval = shareInterval(events, of);
  expect(interval.low).toBeCloseTo(low, 4);
  expect(interval.high).toBeCloseTo(high, 4);
});

test('both ends are where the score test just refuses, and hold the share between them', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 50_000 }), fc.double({ min: 0, max: 1, noNaN: true }), (of, share) => {
      const events = Math.round(share * of);
      const { low, high } = shareInterval(events, of);
      expect(low).toBeLessThanOrEqual(events / of);
      expect(high).toBeGreaterThanOrEqual(events / of);
      for (const end of [low, high])
        if (end > 0 && end < 1)
          expect(Math.abs(events / of - end) / Math.sqrt((end * (1 - end)) / of)).toBeCloseTo(1.959964, 3);
    }),
    runs(100),
  );
});
