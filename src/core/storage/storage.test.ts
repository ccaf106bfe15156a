import { expect, test } from '@jest/globals';
import { bytes, days, gigabytes, hours, inTB, kilobits, terabytes } from '../base/units.ts';
import { enduranceYears, ratedBytesByCycles } from '../reference/recording-wear.ts';
import * as storage from './storage.ts';

// The worked examples are in tests/vectors/storage.json; here stand the edges.
test('4 Mbit/s for 30 days is 1.296 TB', () => {
  const perDay = storage.bytesPerDay([{ count: 1, rate: kilobits(4000), schedule: { mode: 'continuous' } }], 0);
  expect(inTB(bytes(perDay * 30))).toBeCloseTo(1.296, 9);
});

test('nothing recorded never fills a disk', () => {
  expect(storage.daysFit(terabytes(1), 0.9, bytes(0))).toBe(Number.POSITIVE_INFINITY);
});

test('events can fill no more than the hours they may come in', () => {
  const schedule = { mode: 'events', eventsPerDay: 10_000, eventS: 60, preS: 0, postS: 0, hoursPerDay: 8 } as const;
  expect(storage.secondsPerDay(schedule)).toBe(hours(8));
});

test.each([
  { why: 'a share above one', act: () => storage.secondsPerDay({ mode: 'duty', duty: 1.2 }) },
  { why: 'a day of 25 hours', act: () => storage.secondsPerDay({ mode: 'window', hoursPerDay: 25 }) },
  { why: 'a negative share', act: () => storage.daysFit(terabytes(1), -0.1, bytes(1)) },
  { why: 'no number', act: () => storage.daysFit(terabytes(1), Number.NaN, bytes(1)) },
])('refuses $why', ({ act }) => expect(act).toThrow(RangeError));

test('no disk that is sold is large enough: said, not rounded', () => {
  expect(storage.diskNeeded(bytes(1e12), 100, 0.9, [1, 8, 24]).pickTB).toBeNull();
});

test('wear is counted once: a rating by cycles already spent the amplification', () => {
  const rated = ratedBytesByCycles(gigabytes(64), 1000, 2);
  expect(inTB(rated)).toBe(32);
  expect(enduranceYears(kilobits(2048), 24, 1, rated).years).toBeCloseTo(3.96, 2);
});

test('a card that outlasts the outage loses nothing', () => {
  const filled = storage.gapFill(days(1), kilobits(2000), kilobits(10_000), gigabytes(64), 0.93);
  expect(filled.lostS).toBe(0);
  expect(filled.kept).toBe(filled.missing);
});
