import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { SenderClock } from './sender-clock.ts';
import type { SenderReport } from './sender-report.ts';

const report = (unixMs: number, rtpTimestamp: number): SenderReport => ({
  ssrc: 7,
  unixMs,
  rtpTimestamp: rtpTimestamp >>> 0,
  ntpMiddle: 0,
  packetCount: 0,
});

test('the true pace lies within what is told, whatever its stamps are off by', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -300, max: 300, noNaN: true }),
      fc.integer({ min: 3, max: 13 }),
      fc.array(fc.double({ min: -0.4, max: 0.4, noNaN: true }), { minLength: 13, maxLength: 13 }),
      (ppm, count, offMs) => {
        const clock = new SenderClock(90_000);
        for (let at = 0; at < count; at++) {
          const wallMs = 5000 * at;
          clock.push(
            report(1_700_000_000_000 + wallMs, Math.round((wallMs * (1 + ppm / 1e6) + (offMs[at] ?? 0)) * 90)),
          );
        }
        const pace = clock.pace;
        expect(Math.abs((pace?.ppm ?? Number.NaN) - ppm)).toBeLessThanOrEqual(pace?.plusMinusPpm ?? 0);
        // one millisecond over the span at best
        expect(pace?.plusMinusPpm).toBeGreaterThanOrEqual(1000 / (5 * (count - 1)) - 1e-6);
      },
    ),
    runs(100),
  );
});

test('a limit of 2 ms a minute wants thirty seconds', () => {
  const clock = new SenderClock(8000);
  clock.push(report(0, 4_294_967_000));
  expect(clock.pace).toBeNull();
  clock.push(report(15_000, 4_294_967_000 + 120_000));
  clock.push(report(30_000, 4_294_967_000 + 240_000));
  expect((clock.pace?.plusMinusPpm ?? 0) * 0.06).toBeCloseTo(2, 6);
  expect(clock.pace?.ppm).toBeCloseTo(0, 6);
});

test('another source, or reports of one time, tell nothing', () => {
  const clock = new SenderClock(90_000);
  for (let at = 0; at < 3; at++) clock.push(report(1000, 1));
  expect(clock.pace).toBeNull();
  clock.push({ ...report(9000, 5), ssrc: 8 });
  expect(clock.pace).toBeNull();
});
