import { expect, test } from '@jest/globals';
import { evaluate, type Facts } from '../findings/rule.ts';
import { GATES, type LaneFacts } from '../lanes/gates.ts';
import { PROBE_CAUSES } from '../rtsp/exchange-types.ts';
import { TAP_RULES, type TapFacts } from '../stations/tap/tap-rules.ts';
import { findingOfCause } from './cause-findings.ts';
import type { ProbeFacts } from './probe-facts.ts';
import { PROBE_RULES } from './probe-rules.ts';

/** A stream with nothing to say about. */
const SOUND: Facts<ProbeFacts> = {
  lossRatio: 0,
  lost: 0,
  expected: 1902,
  jitterMs: 3,
  duplicates: 0,
  reordered: 0,
  packets: 1902,
  declaredFps: 15,
  measuredFps: 14.8,
  declaredSize: '1280×720',
  measuredSize: '1280×720',
  keyframeIntervalS: 2,
  keyframeIntervalFrames: 30,
  authScheme: 'digest-md5',
  loginInUrl: false,
  senderReports: true,
  observedS: 20,
  clockErrorS: 0.4,
  sessionTimeoutS: 60,
  slowestAnswerMs: 40,
  parameterSets: 'both',
  parameterSetsAgree: true,
  sourceChanges: 0,
  timestampJumps: 0,
};

test('a sound stream has no findings', () => expect(evaluate(PROBE_RULES, SOUND).findings).toEqual([]));

const probeCases: { rule: string; facts: Facts<ProbeFacts>; severity: string; says: RegExp }[] = [
  {
    rule: 'rtp.loss-heavy',
    facts: { lossRatio: 0.02, lost: 38 },
    severity: 'stop',
    says: /One packet in 50 is lost.*38 of 1.902 missing/s,
  },
  { rule: 'rtp.loss', facts: { lossRatio: 0.008, lost: 15 }, severity: 'fix', says: /One packet in 125/ },
  { rule: 'rtp.jitter-heavy', facts: { jitterMs: 180 }, severity: 'fix', says: /180 ms/ },
  { rule: 'rtp.jitter', facts: { jitterMs: 45 }, severity: 'watch', says: /45\.0 ms/ },
  { rule: 'rtp.duplicates', facts: { duplicates: 4 }, severity: 'watch', says: /4 of/ },
  {
    rule: 'video.fps-below-declared',
    facts: { measuredFps: 8 },
    severity: 'watch',
    says: /8 frames a second instead of 15/,
  },
  { rule: 'video.size-differs', facts: { measuredSize: '640×360' }, severity: 'watch', says: /640×360, not 1280×720/ },
  {
    rule: 'video.keyframe-interval-long',
    facts: { keyframeIntervalS: 10, keyframeIntervalFrames: 150 },
    severity: 'fix',
    says: /every 10\.0 s/,
  },
  {
    rule: 'video.keyframe-not-repeated',
    facts: { sampleWithoutSecondKeyframeS: 3 },
    severity: 'watch',
    says: /3\.0 s/,
  },
  { rule: 'auth.none', facts: { authScheme: 'none' }, severity: 'fix', says: /Anyone on this network/ },
  { rule: 'auth.login-in-url', facts: { loginInUrl: true }, severity: 'watch', says: /masked/ },
  { rule: 'auth.basic', facts: { authScheme: 'basic' }, severity: 'fix', says: /readable/ },
  { rule: 'rtcp.no-sender-report', facts: { senderReports: false }, severity: 'watch', says: /in 20 s/ },
  { rule: 'camera.clock-wrong', facts: { clockErrorS: -8 * 31_536_000 }, severity: 'fix', says: /8 years slow/ },
  { rule: 'rtp.source-changed', facts: { sourceChanges: 2 }, severity: 'fix', says: /2 times/ },
  { rule: 'rtp.timestamps-jump', facts: { timestampJumps: 1 }, severity: 'fix', says: /Once/ },
  { rule: 'rtsp.answers-slow', facts: { slowestAnswerMs: 420 }, severity: 'watch', says: /420 ms/ },
  { rule: 'video.parameters-missing', facts: { parameterSets: 'none' }, severity: 'stop', says: /neither/ },
  { rule: 'video.parameters-declared-only', facts: { parameterSets: 'declared' }, severity: 'watch', says: /alone/ },
  { rule: 'video.parameters-in-band-only', facts: { parameterSets: 'in-band' }, severity: 'note', says: /has none/ },
  {
    rule: 'video.parameters-differ',
    facts: { parameterSetsAgree: false },
    severity: 'watch',
    says: /arrives was used/,
  },
  { rule: 'rtsp.session-timeout-short', facts: { sessionTimeoutS: 10 }, severity: 'watch', says: /10 s/ },
];

test.each(probeCases)('$rule fires with its evidence', ({ rule, facts, severity, says }) => {
  const { findings } = evaluate(PROBE_RULES, { ...SOUND, ...facts });
  expect(findings.map((finding) => finding.rule)).toEqual([rule]);
  expect(findings[0]?.severity).toBe(severity);
  expect(`${findings[0]?.title}\n${findings[0]?.because}`).toMatch(says);
});

test('every rule about probes has a case above', () => {
  expect(PROBE_RULES.map(({ id }) => id).sort()).toEqual(probeCases.map(({ rule }) => rule).sort());
});

test('an absent fact means not evaluated, never passed', () => {
  const { findings, notEvaluated } = evaluate(PROBE_RULES, {});
  expect(findings).toEqual([]);
  expect(notEvaluated).toEqual(PROBE_RULES.map(({ id }) => id));
});

test.each([
  { why: 'exactly one in a thousand is still fine', facts: { lossRatio: 0.001 }, rules: [] },
  { why: 'exactly one in a hundred is not yet heavy', facts: { lossRatio: 0.01, lost: 19 }, rules: ['rtp.loss'] },
  { why: 'no sender report in a short sample says nothing', facts: { senderReports: false, observedS: 3 }, rules: [] },
  { why: 'nine tenths of the frames are enough', facts: { measuredFps: 13.5 }, rules: [] },
])('at the limit: $why', ({ facts, rules }) => {
  expect(evaluate(PROBE_RULES, { ...SOUND, ...facts }).findings.map(({ rule }) => rule)).toEqual(rules);
});

test('findings come worst first', () => {
  const { findings } = evaluate(PROBE_RULES, { ...SOUND, jitterMs: 45, authScheme: 'none', lossRatio: 0.05, lost: 90 });
  expect(findings.map(({ severity }) => severity)).toEqual(['stop', 'fix', 'watch']);
});

test('every cause of failure has words, what to do and why', () => {
  for (const cause of PROBE_CAUSES) {
    const finding = findingOfCause(cause, 'the note');
    expect(finding).toMatchObject({ rule: `probe.${cause}`, severity: 'stop', because: 'the note' });
    expect(finding.do.length).toBeGreaterThan(0);
    expect(finding.why).not.toBe('');
  }
});

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
};

test.each([
  { rule: 'tap.codec-not-taken', facts: { codec: 'JPEG' }, severity: 'stop' },
  { rule: 'storage.retention-short', facts: { daysFit: 13.9 }, severity: 'stop' },
  { rule: 'storage.retention-tight', facts: { daysFit: 14 }, severity: 'fix' },
  { rule: 'tap.sessions-over', facts: { sessionsAllowed: 2, sessionsUsed: 3 }, severity: 'stop' },
  { rule: 'tap.sessions-all-used', facts: { sessionsAllowed: 2, sessionsUsed: 2 }, severity: 'watch' },
  { rule: 'tap.secret-readable', facts: { authScheme: 'basic' as const }, severity: 'fix' },
  { rule: 'tap.recording-misdated', facts: { clockErrorS: -400_000 }, severity: 'fix' },
  { rule: 'tap.pictures-without-savings', facts: { codec: 'JPEG', codecsTaken: ['JPEG'] }, severity: 'watch' },
  { rule: 'storage.rate-not-measured', facts: { rateHow: 'assumed' as const }, severity: 'note' },
])('$rule fires', ({ rule, facts, severity }) => {
  const { findings } = evaluate(TAP_RULES, { ...TAP, ...facts });
  expect(findings).toMatchObject([{ rule, severity }]);
});

test.each([
  { why: 'all is well', facts: {} },
  { why: '1.2 times the days wanted is comfortable', facts: { daysFit: 16.8 } },
  { why: 'a planned rate matters only to recordings', facts: { rateHow: 'planned' as const, records: false } },
])('no finding when $why', ({ facts }) => expect(evaluate(TAP_RULES, { ...TAP, ...facts }).findings).toEqual([]));

test('a destination that does not say which codecs it takes is not judged by them', () => {
  expect(evaluate(TAP_RULES, { ...TAP, codecsTaken: undefined }).notEvaluated).toContain('tap.codec-not-taken');
});

const loft = { destination: 'Loft store', verdict: 'ok' as const, handedOver: 'no' as const };
const lane = (facts: Partial<LaneFacts>): LaneFacts => ({
  hasNeed: true,
  hasModel: true,
  chooseStop: null,
  powerStop: null,
  hasFeed: true,
  lacksFeeder: false,
  hasAddress: true,
  probe: { state: 'answered' },
  taps: [loft],
  ...facts,
});
test.each([
  {
    why: 'no need',
    facts: lane({ hasNeed: false, hasAddress: false }),
    gate: 'choose.need',
    next: 'Say what it must show',
  },
  {
    why: 'no model',
    facts: lane({ hasModel: false, hasAddress: false }),
    gate: 'choose.model',
    next: 'Choose a model',
  },
  {
    why: 'a model that does not serve',
    facts: lane({ chooseStop: 'x' }),
    gate: 'choose.fits',
    next: 'Take another model, or place it otherwise',
  },
  { why: 'no power', facts: lane({ hasFeed: false, hasAddress: false }), gate: 'power.way', next: 'Say what feeds it' },
  {
    why: 'fed by nothing',
    facts: lane({ lacksFeeder: true, hasAddress: false }),
    gate: 'power.joined',
    next: 'Join it to what feeds it',
  },
  {
    why: 'power that fails',
    facts: lane({ powerStop: 'x' }),
    gate: 'power.holds',
    next: 'Make its power and links hold',
  },
  {
    why: 'it hangs already, and nobody wrote down what for',
    facts: lane({ hasNeed: false, hasModel: false, hasFeed: false, probe: { state: 'none' } }),
    gate: 'tap.probed',
    next: 'Probe it',
  },
  { why: 'no address', facts: lane({ hasAddress: false }), gate: 'tap.address', next: 'Enter its address' },
  { why: 'never probed', facts: lane({ probe: { state: 'none' } }), gate: 'tap.probed', next: 'Probe it' },
  {
    why: 'probed before it moved',
    facts: lane({ probe: { state: 'outdated' } }),
    gate: 'tap.probed',
    next: 'Probe the new address',
  },
  {
    why: 'a failed probe',
    facts: lane({ probe: { state: 'failed', title: 'x' } }),
    gate: 'tap.answers',
    next: 'Put it right and probe again',
  },
  { why: 'nobody draws it', facts: lane({ taps: [] }), gate: 'tap.given', next: 'Choose who draws it' },
  {
    why: 'it does not fit',
    facts: lane({ taps: [{ ...loft, verdict: 'will-not-work' }] }),
    gate: 'tap.fits',
    next: 'Make it fit Loft store',
  },
  { why: 'not handed over', facts: lane({}), gate: 'hand-over.entered', next: 'Hand over to Loft store' },
  {
    why: 'handed over before it moved',
    facts: lane({ taps: [{ ...loft, handedOver: 'outdated' }] }),
    gate: 'hand-over.entered',
    next: 'Hand over again to Loft store',
  },
  { why: 'all done', facts: lane({ taps: [{ ...loft, handedOver: 'yes' }] }), gate: undefined, next: undefined },
])('gates: $why', ({ facts, gate, next }) => {
  const unmet = GATES.find((candidate) => !candidate.holds(facts));
  expect(unmet?.id).toBe(gate);
  expect(unmet?.next(facts)).toBe(next);
});
