import { expect, test } from '@jest/globals';
import type { Finding } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, verdictOf } from '../../findings/rule.ts';
import type { TapFacts } from './tap-facts.ts';
import { TAP_RULES } from './tap-rules.ts';

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

const BIG = { widthPx: 2560, heightPx: 1440 };

const found = (facts: Facts<TapFacts>): readonly Finding[] => findingsOf(judgeRows(TAP_RULES, facts));

test.each([
  { rule: 'tap.codec-not-taken', facts: { codec: 'JPEG' }, severity: 'stop' },
  { rule: 'storage.retention', facts: { daysFit: 13.9 }, severity: 'stop' },
  { rule: 'storage.retention', facts: { daysFit: 14 }, severity: 'fix' },
  { rule: 'tap.sessions', facts: { sessionsAllowed: 2, sessionsUsed: 3 }, severity: 'stop' },
  { rule: 'tap.sessions', facts: { sessionsAllowed: 2, sessionsUsed: 2 }, severity: 'caution' },
  { rule: 'tap.password-readable', facts: { authScheme: 'basic' as const }, severity: 'fix' },
  { rule: 'tap.recording-misdated', facts: { clockErrorS: -400_000 }, severity: 'fix' },
  { rule: 'tap.pictures-without-savings', facts: { codec: 'JPEG', codecsTaken: ['JPEG'] }, severity: 'caution' },
  {
    rule: 'tap.protocol-not-taken',
    facts: { protocol: 'rtsp' as const, protocolsTaken: ['onvif' as const] },
    severity: 'stop',
  },
  {
    rule: 'tap.protocol-not-taken',
    facts: { protocol: 'rtsps' as const, protocolsTaken: ['rtsp' as const] },
    severity: 'stop',
  },
  {
    rule: 'tap.sound-not-taken',
    facts: { soundCodec: 'AAC', soundsTaken: ['PCMU'], records: false },
    severity: 'caution',
  },
  { rule: 'tap.sound-recorded', facts: { soundCodec: 'AAC', records: true }, severity: 'note' },
  {
    rule: 'tap.no-ptz',
    facts: { protocol: 'rtsp' as const, isSteeredLive: true, protocolsTaken: ['rtsp' as const] },
    severity: 'caution',
  },
  { rule: 'tap.picture-too-large', facts: { ...BIG, mostWidthPx: 1920, mostHeightPx: 1080 }, severity: 'stop' },
  { rule: 'tap.too-many-frames', facts: { streamFps: 25, mostFps: 15 }, severity: 'fix' },
  { rule: 'tap.rate-too-high', facts: { mostKbps: 1000 }, severity: 'stop' },
  { rule: 'tap.decoders', facts: { isDecoded: true, decodesUsed: 5, decodes: 4 }, severity: 'stop' },
  { rule: 'tap.licences', facts: { licencesUsed: 4, licencesIncluded: 3, licencePacks: '' }, severity: 'stop' },
  {
    rule: 'tap.licences',
    facts: { licencesUsed: 4, licencesIncluded: 3, licencePacks: '1 × 1 seats for € 37' },
    severity: 'fix',
  },
  { rule: 'storage.rate-not-measured', facts: { rateHow: 'assumed' as const }, severity: 'note' },
])('$rule fires', ({ rule, facts, severity }) => {
  expect(found({ ...TAP, ...facts })).toMatchObject([{ rule, severity }]);
});

test.each([
  { why: 'all is well', facts: {} },
  { why: '1.2 times the days wanted is comfortable', facts: { daysFit: 16.8 } },
  {
    why: 'a picture turned on its side',
    facts: { widthPx: 1080, heightPx: 1920, mostWidthPx: 1920, mostHeightPx: 1080 },
  },
  {
    why: 'just as much as it takes',
    facts: {
      rateKbps: 1000,
      mostKbps: 1000,
      streamFps: 15,
      mostFps: 15,
      licencesUsed: 3,
      licencesIncluded: 3,
      licencePacks: '',
    },
  },
  { why: 'decoders do not matter to what is recorded', facts: { isDecoded: false, decodesUsed: 5, decodes: 4 } },
  { why: 'a planned rate matters only to recordings', facts: { rateHow: 'planned' as const, records: false } },
])('no finding when $why', ({ facts }) => expect(found({ ...TAP, ...facts })).toEqual([]));

test.each([
  { why: 'a recording whose rate nobody knows', facts: { daysFit: undefined }, rule: 'storage.retention' },
  { why: 'a stream whose codec nobody knows', facts: { codec: undefined }, rule: 'tap.codec-not-taken' },
  {
    why: 'a destination of which nobody entered what it takes',
    facts: { codecsTaken: undefined },
    rule: 'tap.codec-not-taken',
  },
  {
    why: 'a picture of unknown size for one that takes small ones',
    facts: { mostWidthPx: 1920, mostHeightPx: 1080 },
    rule: 'tap.picture-too-large',
  },
  { why: 'two taps of a camera that may serve one', facts: { sessionsUsed: 2 }, rule: 'tap.sessions' },
])('$why: not known, never fits', ({ facts, rule }) => {
  const rows = judgeRows(TAP_RULES, { ...TAP, ...facts });
  expect(rows.find((row) => row.rule === rule)).toMatchObject({ verdict: 'unknown', finding: null });
  expect(verdictOf(rows)).toBe('unknown');
});

test('one tap needs no word about sessions: a camera serves one', () =>
  expect(verdictOf(judgeRows(TAP_RULES, { ...TAP, sessionsUsed: 1 }))).toBe('ok'));
