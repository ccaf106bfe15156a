import { expect, test } from '@jest/globals';
import type { Finding } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, verdictOf } from '../../findings/rule.ts';
import { TAP_RULES, type TapFacts } from './tap-rules.ts';

const TAP: Facts<TapFacts> = {
  destination: 'Loft store',
  codec: 'H264',
  codecsTaken: ['H264', 'H265'],
  rateKbps: 1184,
  rateHow: 'measured',
  records: true,
  daysFit: 30,
  daysWanted: 14,
  bytesPerDay: 12.8e9,
  usableBytes: 225e9,
  clockOkS: 5,
};

const found = (facts: Facts<TapFacts>): readonly Finding[] => findingsOf(judgeRows(TAP_RULES, facts));

test.each([
  { rule: 'tap.codec-not-taken', facts: { codec: 'JPEG' }, severity: 'stop' },
  { rule: 'storage.retention', facts: { daysFit: 13.9 }, severity: 'stop' },
  { rule: 'storage.retention', facts: { daysFit: 14 }, severity: 'fix' },
  { rule: 'tap.sessions', facts: { sessionsAllowed: 2, sessionsUsed: 3 }, severity: 'stop' },
  { rule: 'tap.sessions', facts: { sessionsAllowed: 2, sessionsUsed: 2 }, severity: 'watch' },
  { rule: 'tap.secret-readable', facts: { authScheme: 'basic' as const }, severity: 'fix' },
  { rule: 'tap.recording-misdated', facts: { clockErrorS: -400_000 }, severity: 'fix' },
  { rule: 'tap.pictures-without-savings', facts: { codec: 'JPEG', codecsTaken: ['JPEG'] }, severity: 'watch' },
  { rule: 'storage.rate-not-measured', facts: { rateHow: 'assumed' as const }, severity: 'note' },
])('$rule fires', ({ rule, facts, severity }) => {
  expect(found({ ...TAP, ...facts })).toMatchObject([{ rule, severity }]);
});

test.each([
  { why: 'all is well', facts: {} },
  { why: '1.2 times the days wanted is comfortable', facts: { daysFit: 16.8 } },
  { why: 'a planned rate matters only to recordings', facts: { rateHow: 'planned' as const, records: false } },
])('no finding when $why', ({ facts }) => expect(found({ ...TAP, ...facts })).toEqual([]));

test('a destination that does not say which codecs it takes is not judged by them', () => {
  const asked = judgeRows(TAP_RULES, { ...TAP, codecsTaken: undefined }).map(({ rule }) => rule);
  expect(asked).not.toContain('tap.codec-not-taken');
});

test.each([
  { why: 'a recording whose rate nobody knows', facts: { daysFit: undefined }, rule: 'storage.retention' },
  { why: 'a stream whose codec nobody knows', facts: { codec: undefined }, rule: 'tap.codec-not-taken' },
  { why: 'two taps of a camera that may serve one', facts: { sessionsUsed: 2 }, rule: 'tap.sessions' },
])('$why: not known, never fits', ({ facts, rule }) => {
  const rows = judgeRows(TAP_RULES, { ...TAP, ...facts });
  expect(rows.find((row) => row.rule === rule)).toMatchObject({ verdict: 'unknown', finding: null });
  expect(verdictOf(rows)).toBe('unknown');
});

test('one tap needs no word about sessions: a camera serves one', () =>
  expect(verdictOf(judgeRows(TAP_RULES, { ...TAP, sessionsUsed: 1 }))).toBe('ok'));
