import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import type { Finding } from '../findings/finding.ts';
import { type Facts, findingsOf, judgeRows } from '../findings/rule.ts';
import { PROBE_CAUSES } from '../rtsp/exchange-types.ts';
import { findingOfCause } from './cause-findings.ts';
import type { JudgedFacts } from './probe-facts.ts';
import { type ProbeLimits, USUAL_LIMITS } from './probe-limits.ts';
import { PROBE_RULES } from './probe-rules.ts';

/** A stream with nothing to say about. */
const SOUND: Facts<JudgedFacts> = {
  limits: USUAL_LIMITS,
  lossRatio: 0,
  lost: 0,
  expected: 1902,
  jitterMs: 3,
  longestGapMs: 12,
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
  vuiFps: 15,
  bFrames: false,
  openKeyFrames: 0,
  closedKeyFrames: 2,
  groupSpreadFrames: 0,
  clockRatio: 1,
  clockRatioError: 0.01,
  driftMsPerMin: 0.4,
  driftErrorMsPerMin: 1.5,
};

/** Each lost packet by itself, where nothing else is said. */
const found = (facts: Facts<JudgedFacts>): readonly Finding[] =>
  findingsOf(judgeRows(PROBE_RULES, { lossEvents: facts.lost, ...facts }));

test.each([
  { rule: 'rtp.loss', facts: { lossRatio: 0.005, lost: 10 }, limits: { lossOk: 0.05 } },
  { rule: 'rtp.jitter', facts: { jitterMs: 40 }, limits: { jitterOkMs: 50 } },
  { rule: 'video.fps-below-declared', facts: { measuredFps: 10 }, limits: { fpsShare: 0.5 } },
  { rule: 'video.keyframe-interval-long', facts: { keyframeIntervalS: 5 }, limits: { keyframeTightS: 6 } },
  { rule: 'camera.clock-wrong', facts: { clockErrorS: -20 }, limits: { clockOkS: 60 } },
  { rule: 'rtsp.answers-slow', facts: { slowestAnswerMs: 400 }, limits: { answerSlowMs: 500 } },
  { rule: 'rtsp.session-timeout-short', facts: { sessionTimeoutS: 20 }, limits: { sessionTimeoutS: 10 } },
])('what the site assumes decides: $rule', ({ rule, facts, limits }) => {
  const judged = (changed: Partial<ProbeLimits>): readonly string[] =>
    found({ ...SOUND, ...facts, limits: { ...USUAL_LIMITS, ...changed } }).map((finding) => finding.rule);
  expect(judged({})).toContain(rule);
  expect(judged(limits)).not.toContain(rule);
});

test('a sound stream has no findings', () => expect(found(SOUND)).toEqual([]));

/** A certificate with nothing to say about. */
const SHOWN: Facts<JudgedFacts> = {
  isEncrypted: true,
  tlsSubject: 'Ferry gate',
  tlsProtocol: 'TLSv1.3',
  tlsSelfSigned: false,
  tlsDaysLeft: 400,
  tlsDaysUntil: -400,
  tlsNamesHost: true,
  tlsShortKey: false,
  tlsFingerprint: 'AB:CD',
};

test('a login in the open is none inside an encrypted line', () => {
  expect(found({ ...SOUND, ...SHOWN, authScheme: 'basic' })).toEqual([]);
});

const probeCases: { rule: string; facts: Facts<JudgedFacts>; severity: string; says: RegExp }[] = [
  {
    rule: 'rtp.loss',
    facts: { lossRatio: 0.02, lost: 38 },
    severity: 'stop',
    says: /One packet in 50 is lost.*38 of 1.902 lost \(1\.5 % to 2\.7 %\)/s,
  },
  { rule: 'rtp.loss', facts: { lossRatio: 0.008, lost: 15 }, severity: 'fix', says: /One packet in 125/ },
  {
    rule: 'rtp.loss',
    facts: { lost: 1, expected: 90 },
    severity: 'caution',
    says: /One packet lost.*0\.2 % to 6\.0 %/s,
  },
  {
    rule: 'rtp.loss',
    facts: { lost: 120, lossEvents: 1 },
    severity: 'caution',
    says: /120 packets lost at once.*one event/s,
  },
  { rule: 'rtp.loss', facts: { lost: 3 }, severity: 'caution', says: /3 packets lost: the sample is too short/ },
  { rule: 'rtp.jitter', facts: { longestGapMs: 400 }, severity: 'caution', says: /held up for 400 ms/ },
  { rule: 'rtp.jitter', facts: { jitterMs: 180 }, severity: 'fix', says: /180 ms/ },
  { rule: 'rtp.jitter', facts: { jitterMs: 45 }, severity: 'caution', says: /45\.0 ms/ },
  { rule: 'rtp.duplicates', facts: { duplicates: 4 }, severity: 'caution', says: /4 of/ },
  {
    rule: 'video.fps-below-declared',
    facts: { measuredFps: 8 },
    severity: 'caution',
    says: /8 instead of 15 fps/,
  },
  {
    rule: 'video.size-differs',
    facts: { measuredSize: '640×360' },
    severity: 'caution',
    says: /640×360, not 1280×720/,
  },
  {
    rule: 'video.keyframe-interval-long',
    facts: { keyframeIntervalS: 10, keyframeIntervalFrames: 150 },
    severity: 'fix',
    says: /10\.0 s/,
  },
  {
    rule: 'video.keyframe-not-repeated',
    facts: { sampleWithoutSecondKeyframeS: 3 },
    severity: 'caution',
    says: /3\.0 s/,
  },
  { rule: 'auth.none', facts: { authScheme: 'none' }, severity: 'fix', says: /without a login/ },
  { rule: 'auth.login-in-url', facts: { loginInUrl: true }, severity: 'caution', says: /masked/ },
  { rule: 'auth.basic', facts: { authScheme: 'basic' }, severity: 'fix', says: /readable/ },
  { rule: 'rtcp.no-sender-report', facts: { senderReports: false }, severity: 'caution', says: /in 20 s/ },
  { rule: 'camera.clock-wrong', facts: { clockErrorS: -8 * 31_536_000 }, severity: 'fix', says: /8 years slow/ },
  { rule: 'rtp.source-changed', facts: { sourceChanges: 2 }, severity: 'fix', says: /2 times/ },
  { rule: 'rtp.timestamps-jump', facts: { timestampJumps: 1 }, severity: 'fix', says: /Once/ },
  { rule: 'rtsp.answers-slow', facts: { slowestAnswerMs: 420 }, severity: 'caution', says: /420 ms/ },
  { rule: 'video.parameters-missing', facts: { parameterSets: 'none' }, severity: 'stop', says: /neither/ },
  { rule: 'video.parameters-declared-only', facts: { parameterSets: 'declared' }, severity: 'caution', says: /alone/ },
  { rule: 'video.parameters-in-band-only', facts: { parameterSets: 'in-band' }, severity: 'note', says: /has none/ },
  {
    rule: 'video.parameters-differ',
    facts: { parameterSetsAgree: false },
    severity: 'caution',
    says: /in the stream were used/,
  },
  { rule: 'rtsp.session-timeout-short', facts: { sessionTimeoutS: 10 }, severity: 'caution', says: /10 s/ },
  {
    rule: 'rtsp.keep-alive-refused',
    facts: { refusedKeepAlive: 'GET_PARAMETER' },
    severity: 'caution',
    says: /refused/,
  },
  { rule: 'video.b-frames', facts: { bFrames: true }, severity: 'caution', says: /back and forth/ },
  {
    rule: 'video.open-gop',
    facts: { openKeyFrames: 3, closedKeyFrames: 0 },
    severity: 'caution',
    says: /3 key frames/,
  },
  { rule: 'video.gop-uneven', facts: { groupSpreadFrames: 12 }, severity: 'note', says: /up to 12 frames/ },
  { rule: 'video.vui-fps', facts: { vuiFps: 25 }, severity: 'note', says: /25 by its parameter sets, 14\.8/ },
  { rule: 'video.clock-rate', facts: { clockRatio: 0.5 }, severity: 'fix', says: /advance by 0\.50 s/ },
  { rule: 'media.drift', facts: { driftMsPerMin: -300 }, severity: 'caution', says: /By 300 ± 2 ms/ },
  {
    rule: 'sound.config-lies',
    facts: { soundTicksPerUnit: 3072, soundUnitTicks: 1024, soundUnreadPackets: 0, soundPackets: 40 },
    severity: 'fix',
    says: /3072 ticks; as described it would be 1024/,
  },
  {
    rule: 'sound.config-lies',
    facts: { soundUnreadPackets: 40, soundPackets: 40 },
    severity: 'fix',
    says: /100 % of its packets/,
  },
  { rule: 'tls.expired', facts: { ...SHOWN, tlsDaysLeft: -800 }, severity: 'fix', says: /800 days ago/ },
  { rule: 'tls.expired', facts: { ...SHOWN, tlsDaysLeft: 12 }, severity: 'caution', says: /in 12 days/ },
  { rule: 'tls.not-yet-valid', facts: { ...SHOWN, tlsDaysUntil: 40 }, severity: 'fix', says: /valid only in 40 days/ },
  { rule: 'tls.self-signed', facts: { ...SHOWN, tlsSelfSigned: true }, severity: 'note', says: /SHA-256 AB:CD/ },
  { rule: 'tls.host-name', facts: { ...SHOWN, tlsNamesHost: false }, severity: 'note', says: /does not name/ },
  { rule: 'tls.old', facts: { ...SHOWN, tlsProtocol: 'TLSv1.1' }, severity: 'fix', says: /TLS 1\.1/ },
  { rule: 'tls.old', facts: { ...SHOWN, tlsShortKey: true }, severity: 'fix', says: /shorter/ },
];

test.each(probeCases)('$rule fires with its evidence', ({ rule, facts, severity, says }) => {
  const findings = found({ ...SOUND, ...facts });
  expect(findings.map((finding) => finding.rule)).toEqual([rule]);
  expect(findings[0]?.severity).toBe(severity);
  expect(`${findings[0]?.title}\n${findings[0]?.because}`).toMatch(says);
});

test('every rule about probes has a case above', () => {
  expect(PROBE_RULES.map(({ id }) => id).sort()).toEqual([...new Set(probeCases.map(({ rule }) => rule))].sort());
});

test('an absent fact means not evaluated, never passed', () => {
  const rows = judgeRows(PROBE_RULES, {});
  expect(findingsOf(rows)).toEqual([]);
  // what weighs is asked of every sample
  const asked = rows.map(({ rule }) => rule);
  expect(asked).toEqual(
    expect.arrayContaining(['rtp.loss', 'rtp.jitter', 'video.keyframe-interval-long', 'auth.none']),
  );
  for (const { verdict, missing } of rows) expect([verdict, missing.length > 0]).toEqual(['unknown', true]);
});

test.each([
  { why: 'two in two thousand may be few, and may be many', facts: { lost: 2 }, rules: ['rtp.loss'] },
  { why: 'none lost is no finding, however short the sample', facts: { expected: 40 }, rules: [] },
  { why: 'a few in a hundred thousand prove that there are few', facts: { lost: 9, expected: 100_000 }, rules: [] },
  {
    why: 'a clock that is known no better is not known',
    facts: { clockRatio: 1.08, clockRatioError: 0.06 },
    rules: [],
  },
  {
    why: 'a drift that is known no better is not known',
    facts: { driftMsPerMin: 24, driftErrorMsPerMin: 24 },
    rules: [],
  },
  { why: 'exactly one in a hundred is not yet heavy', facts: { lossRatio: 0.01, lost: 19 }, rules: ['rtp.loss'] },
  { why: 'no sender report in a short sample says nothing', facts: { senderReports: false, observedS: 3 }, rules: [] },
  { why: 'nine tenths of the frames are enough', facts: { measuredFps: 13.5 }, rules: [] },
])('at the limit: $why', ({ facts, rules }) => {
  expect(found({ ...SOUND, ...facts }).map(({ rule }) => rule)).toEqual(rules);
});

test('findings come worst first', () => {
  const findings = found({ ...SOUND, jitterMs: 45, authScheme: 'none', lossRatio: 0.05, lost: 90 });
  expect(findings.map(({ severity }) => severity)).toEqual(['stop', 'fix', 'caution']);
});

test('every cause of failure has words, what to do and why', () => {
  for (const cause of PROBE_CAUSES) {
    const finding = findingOfCause(cause, 'the note');
    expect(finding).toMatchObject({ rule: `probe.${cause}`, severity: 'stop', because: 'the note' });
    expect(finding.do.length).toBeGreaterThan(0);
    expect(finding.why).not.toBe('');
  }
});

test.each([
  { lossRatio: 0.75, title: '75 % of the packets are lost' },
  { lossRatio: 0.02, title: 'One packet in 50 is lost' },
])('a loss as one can picture it: $title', ({ lossRatio, title }) => {
  const facts = { ...SOUND, lossRatio, lost: Math.round(1000 * lossRatio), expected: 1000 };
  expect(found(facts).find(({ rule }) => rule === 'rtp.loss')?.title).toBe(title);
});

test.each([
  {
    why: 'over UDP',
    facts: { transport: 'udp', isOnWifi: false },
    first: /Choose TCP/,
    says: /switch port/,
    not: /GHz/,
  },
  {
    why: 'over UDP and Wi-Fi',
    facts: { transport: 'udp', isOnWifi: true },
    first: /Choose TCP/,
    says: /5 GHz/,
    not: /plugs/,
  },
  { why: 'over TCP', facts: { transport: 'tcp' }, first: /bit rate/, says: /by Wi-Fi the signal/, not: /Choose TCP/ },
] as const)('what helps against loss $why', ({ facts, first, says, not }) => {
  const remedies = found({ ...SOUND, lossRatio: 0.02, lost: 38, ...facts })[0]?.do ?? [];
  expect(remedies[0]).toMatch(first);
  expect(remedies.join(' ')).toMatch(says);
  expect(remedies.join(' ')).not.toMatch(not);
});

test('loss is judged as a test of the limit itself would: by how unlikely so many are on a line at the limit', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 20, max: 60_000 }),
      fc.double({ min: 0, max: 0.05, noNaN: true }),
      (expected, share) => {
        const lost = Math.round(share * expected);
        const over = (limit: number): boolean =>
          (lost / expected - limit) / Math.sqrt((limit * (1 - limit)) / expected) > 1.959964;
        const finding = found({ ...SOUND, lossRatio: lost / expected, lost, expected }).find(
          ({ rule }) => rule === 'rtp.loss',
        );
        if (lost <= 1) expect(['caution', undefined]).toContain(finding?.severity);
        else if (over(USUAL_LIMITS.lossTight)) expect(finding?.severity).toBe('stop');
        else if (over(USUAL_LIMITS.lossOk)) expect(finding?.severity).toBe('fix');
        else expect(['caution', undefined]).toContain(finding?.severity);
      },
    ),
    runs(300),
  );
});
