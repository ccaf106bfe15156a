import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  HEAD,
  KNOWING,
  ONVIF_CASES,
  profile,
  READING,
  readAs,
  readSite,
} from '../../../../tests/support/onvif-readings.ts';
import { runs } from '../../../../tests/support/runs.ts';
import { apply } from '../../../../tests/support/sites.ts';
import type { Site } from '../../document/site.ts';
import { readSiteFile, writeSiteFile } from '../../document/site-file.ts';
import { indexEvidence } from '../../evidence/evidence-index.ts';
import { heardRecord } from '../../evidence/measured-records.ts';
import { rememberedReading } from '../../evidence/onvif-evidence.ts';
import { judgeRows } from '../../findings/rule.ts';
import type { CertificateSeen } from '../../net/certificate.ts';
import { onvifFacts } from '../../onvif/onvif-facts.ts';
import { ONVIF_RULES } from '../../onvif/onvif-rules.ts';
import type { OnvifReading } from '../../onvif/reading.ts';
import { viewOf } from '../../site/site-view.ts';
import { onvifFindings } from './onvif-judgement.ts';
import { type WayFacts, wayFor } from './way-advice.ts';

function found(site: Site): ReadonlyMap<string, string> {
  const [camera] = site.cameras;
  if (!camera) throw new Error('a camera');
  const findings = onvifFindings(camera, viewOf(site, indexEvidence(site.journal)));
  return new Map(findings.map(({ rule, severity }) => [rule, severity]));
}

test('of a device without fault nothing is said', () => expect([...found(readSite())]).toEqual([]));

const ofReading = (rule: string, severity: string, reading: Partial<OnvifReading>) => ({ rule, severity, reading });
const DAY_MS = 86_400_000;
const SHOWN: CertificateSeen = {
  protocol: 'TLSv1.3',
  subject: 'Ferry gate',
  issuer: 'Tarn Optics',
  isSelfSigned: false,
  validFromUnixMs: -400 * DAY_MS,
  validToUnixMs: 400 * DAY_MS,
  seenAtUnixMs: 0,
  names: [READING.host],
  keyBits: 256,
  isElliptic: true,
  signatureHash: 'SHA-256',
  fingerprint: 'AB:CD',
};
const shown = (rule: string, severity: string, how: Partial<CertificateSeen>) =>
  ofReading(rule, severity, { tls: { ...SHOWN, ...how } });
const elsewhere = READING.services.map((service) => ({ ...service, elsewhere: '192.168.10.1' }));

test.each([
  ofReading('onvif.not-read', 'fix', { cause: 'auth-failed', note: 'It refused.', device: null }),
  ofReading('onvif.not-read', 'stop', { cause: 'hostile-xml', note: 'A document type.', device: null }),
  ofReading('onvif.not-read', 'stop', { cause: 'certificate-changed', note: 'Another fingerprint.', device: null }),
  ofReading('onvif.clock', 'caution', { clock: { skewS: 240, kept: 'ntp', zone: '' } }),
  ofReading('onvif.clock', 'fix', { clock: { skewS: -86_400, kept: 'ntp', zone: '' } }),
  ofReading('onvif.clock-by-hand', 'note', { clock: { skewS: 0, kept: 'manual', zone: '' } }),
  ofReading('onvif.no-time-server', 'caution', { network: { mac: '', dhcp: null, timeServers: [] } }),
  ofReading('onvif.open', 'fix', { isOpen: true, login: 'none' }),
  ofReading('onvif.digest-only', 'note', { login: 'digest' }),
  ofReading('onvif.old', 'note', { isOld: true }),
  ofReading('onvif.inner-services', 'fix', { services: elsewhere }),
  ofReading('onvif.inner-streams', 'fix', {
    profiles: [
      profile('main', '/live/main', {
        stream: { path: '/live/main', port: 554, scheme: 'rtsp', elsewhere: '192.168.10.1' },
      }),
      ...READING.profiles.slice(1),
    ],
  }),
  ofReading('onvif.encrypted-services', 'caution', {
    services: READING.services.map((service) => ({ ...service, isTls: true })),
  }),
  ofReading('onvif.other-door', 'caution', { heldDoors: [{ port: 8080, isTls: false }] }),
  ofReading('onvif.tells-login', 'caution', { tellsLogin: true }),
  shown('onvif.tls.expired', 'fix', { validToUnixMs: -3 * DAY_MS }),
  shown('onvif.tls.expired', 'caution', { validToUnixMs: 12 * DAY_MS }),
  shown('onvif.tls.not-yet-valid', 'fix', { validFromUnixMs: 40 * DAY_MS }),
  shown('onvif.tls.self-signed', 'note', { isSelfSigned: true }),
  shown('onvif.tls.host-name', 'note', { names: ['other.local'] }),
  shown('onvif.tls.old', 'fix', { protocol: 'TLSv1.1' }),
  shown('onvif.tls.old', 'fix', { keyBits: 1024, isElliptic: false }),
  ofReading('onvif.no-profiles', 'fix', { profiles: [] }),
  ofReading('onvif.hidden-profiles', 'caution', {
    profiles: READING.profiles.map((one) => ({ ...one, via: 'media2' as const })),
  }),
  ofReading('onvif.profile-without-stream', 'caution', {
    profiles: [...READING.profiles, profile('third', '', { stream: null })],
  }),
  ofReading('onvif.same-names', 'note', { profiles: [...READING.profiles, profile('Main', '/live/main')] }),
  ofReading('onvif.no-still', 'note', { profiles: READING.profiles.map((one) => ({ ...one, still: null })) }),
  ofReading('onvif.key-frames', 'caution', {
    profiles: [profile('main', '/live/main', { gopFrames: 150 }), ...READING.profiles.slice(1)],
  }),
  ofReading('onvif.answers-twice', 'caution', { extraAnswers: 3 }),
  ofReading('onvif.odd-types', 'note', { oddTypes: 2 }),
  ofReading('onvif.slow', 'caution', { meanAnswerMs: 1400 }),
  ofReading('onvif.ptz-by-time', 'caution', {
    ptz: { ...HEAD, node: { ...HEAD.node, absolute: null, relative: null } },
  }),
  ofReading('onvif.ptz-no-position', 'caution', { ptz: { ...HEAD, tells: 'nothing' } }),
  ofReading('onvif.no-presets', 'caution', { ptz: { ...HEAD, presets: [], node: { ...HEAD.node, mostPresets: 0 } } }),
  ofReading('onvif.presets-full', 'note', { ptz: { ...HEAD, node: { ...HEAD.node, mostPresets: 1 } } }),
  ofReading('onvif.no-events', 'note', {
    services: READING.services.filter(({ name }) => name !== 'events'),
    events: null,
  }),
  ofReading('onvif.no-pull', 'fix', { events: { topics: ['Motion'], canPull: false, note: 'Full.' } }),
  ofReading('onvif.no-motion', 'caution', {
    events: { topics: ['Device/Trigger/DigitalInput'], canPull: true, note: '' },
  }),
])('$rule: $severity', ({ rule, severity, reading }) => {
  const site = readSite({ reading });
  expect(found(site).get(rule)).toBe(severity);
  // it is kept, and told again from a file
  const opened = readSiteFile(writeSiteFile(site));
  expect(opened.ok && found(opened.value).get(rule)).toBe(severity);
});

test.each([
  ...ONVIF_CASES.map(({ rule, site }) => ({ rule, site })),
  { rule: 'onvif.first-channel', site: readSite({ card: { channels: 4 } }) },
  {
    rule: 'ptz.stop-lost',
    site: apply(readSite(), { kind: 'recordHeadTrait', cameraId: 'c', trait: 'head.stopsLost', value: 2 }),
  },
  {
    rule: 'ptz.timeout-ignored',
    site: apply(readSite(), { kind: 'recordHeadTrait', cameraId: 'c', trait: 'head.keepsTimeout', value: false }),
  },
  {
    rule: 'ptz.tour',
    site: apply(
      readSite({ reading: { ptz: { ...HEAD, tells: 'nothing' } } }),
      { kind: 'putTour', cameraId: 'c', tour: { id: 't', name: 'Tour', stops: [] } },
      {
        kind: 'recordTurns',
        cameraId: 'c',
        calibrationId: 'k',
        turns: { degPerS: 20, offsetDeg: 0, deadTimeS: 0, residualDeg: 5 },
        velocity: 0.5,
        measured: 3,
      },
    ),
  },
  ...['heard.nothing', 'heard.subscription-lost'].map((rule) => ({
    rule,
    site: apply(
      readSite(),
      heardRecord('c', 'h', {
        seconds: 60,
        changes: 0,
        motions: 0,
        firstMotionS: null,
        kinds: [],
        lost: 1,
        cause: null,
        note: '',
      }),
    ),
  })),
])('$rule is found, and only there', ({ rule, site }) => {
  expect(found(readSite()).has(rule)).toBe(false);
  expect(found(site).has(rule)).toBe(true);
});

test('a certificate with nothing to say about says nothing, and without TLS nobody asks', () => {
  expect([...found(readSite({ reading: { tls: SHOWN } }))]).toEqual([]);
  const rows = judgeRows(ONVIF_RULES, onvifFacts(READING, 5));
  expect(rows.filter(({ rule }) => rule.startsWith('onvif.tls.'))).toEqual([]);
});

test('a reading of another address says nothing about this one', () => {
  const site = apply(readSite({ reading: { isOpen: true } }), {
    kind: 'setAddress',
    cameraId: 'c',
    host: '10.77.4.99',
    port: 554,
  });
  expect(found(site).size).toBe(0);
});

test('the last reading counts, and it is told again as it was', () => {
  const site = apply(readSite({ reading: { isOld: true } }), readAs({}, 'reading-2'));
  const again = rememberedReading(indexEvidence(site.journal), 'c');
  expect(again?.reading).toEqual(READING);
});

test('a card that was taught knows it, and where it is from', () => {
  const lacking = readSite({ card: { onvifPort: null, path: '', rtspPort: null, subs: null, codecs: [], fps: null } });
  const [, card] = lacking.models.filter(({ id }) => id === 'pd-5' || id === 'spare');
  expect(card?.path ?? '').toBe('');
  expect(found(lacking).get('onvif.card-lacks')).toBe('note');
  expect(KNOWING.learnedFrom).toEqual([]);
});

const WAY: WayFacts = {
  use: 'record',
  takes: ['rtsp', 'onvif'],
  givesRtsp: true,
  givesOnvif: true,
  line: 'rtsp',
  isAccountOnly: false,
  skewS: 0,
  givesElsewhere: false,
  hasHead: true,
  wantsSteering: true,
  tellsMotion: true,
  forgetsListeners: false,
  isHiddenChannel: false,
  isHiddenCodec: false,
};

test.each([
  { why: 'to record it needs the picture alone', facts: {}, way: 'rtsp', verdict: 'ok' },
  { why: 'nothing was probed', facts: { givesRtsp: null }, way: 'rtsp', verdict: 'unknown' },
  { why: 'its own motion', facts: { use: 'detect' as const }, way: 'both', verdict: 'ok' },
  {
    why: 'motion that nobody read',
    facts: { use: 'detect' as const, givesOnvif: null, tellsMotion: null },
    way: 'both',
    verdict: 'unknown',
  },
  { why: 'no motion', facts: { use: 'detect' as const, tellsMotion: false }, way: 'rtsp', verdict: 'tight' },
  {
    why: 'it forgets who listens',
    facts: { use: 'detect' as const, forgetsListeners: true },
    way: 'both',
    verdict: 'tight',
  },
  { why: 'a head that is to be turned', facts: { use: 'live' as const }, way: 'both', verdict: 'ok' },
  { why: 'a hub without ONVIF', facts: { use: 'live' as const, takes: ['rtsp'] }, way: 'rtsp', verdict: 'tight' },
  { why: 'a clock that is years off', facts: { use: 'detect' as const, skewS: -1e8 }, way: 'rtsp', verdict: 'tight' },
  { why: 'an inner address', facts: { use: 'live' as const, givesElsewhere: true }, way: 'rtsp', verdict: 'tight' },
  { why: 'ONVIF alone', facts: { takes: ['onvif'] }, way: 'onvif', verdict: 'ok' },
  { why: 'ONVIF alone, not read', facts: { takes: ['onvif'], givesOnvif: null }, way: 'onvif', verdict: 'unknown' },
  {
    why: 'ONVIF alone, and a channel it hides',
    facts: { takes: ['onvif'], isHiddenChannel: true },
    way: 'none',
    verdict: 'will-not-work',
  },
  {
    why: 'both, and no picture',
    facts: { use: 'detect' as const, givesRtsp: false },
    way: 'both',
    verdict: 'will-not-work',
  },
  {
    why: 'ONVIF alone, and no picture',
    facts: { takes: ['onvif'], givesRtsp: false },
    way: 'onvif',
    verdict: 'will-not-work',
  },
  { why: 'ONVIF alone, not probed', facts: { takes: ['onvif'], givesRtsp: null }, way: 'onvif', verdict: 'unknown' },
  {
    why: 'ONVIF alone, and no head to turn',
    facts: { takes: ['onvif'], use: 'live' as const, hasHead: false },
    way: 'onvif',
    verdict: 'tight',
  },
  {
    why: 'a head, whoever forgets listeners',
    facts: { use: 'live' as const, forgetsListeners: true },
    way: 'both',
    verdict: 'ok',
  },
  {
    why: 'TLS alone, by which it comes',
    facts: { takes: ['rtsps'], line: 'rtsps' as const },
    way: 'rtsp',
    verdict: 'ok',
  },
  { why: 'TLS alone, and it comes without', facts: { takes: ['rtsps'] }, way: 'rtsp', verdict: 'unknown' },
  {
    why: 'ONVIF alone, and a clock that is off',
    facts: { takes: ['onvif'], skewS: -1e8 },
    way: 'onvif',
    verdict: 'unknown',
  },
  { why: 'ONVIF alone, and H.265', facts: { takes: ['onvif'], isHiddenCodec: true }, way: 'onvif', verdict: 'unknown' },
  { why: 'neither', facts: { takes: ['http'] }, way: 'none', verdict: 'will-not-work' },
  { why: 'an account of its maker', facts: { isAccountOnly: true, givesRtsp: null }, way: 'maker', verdict: 'tight' },
  { why: 'figures that nobody entered', facts: { takes: null }, way: 'rtsp', verdict: 'unknown' },
])('which way: $why', ({ facts, way, verdict }) => {
  const advice = wayFor({ ...WAY, ...facts });
  expect(advice).toMatchObject({ way, verdict });
  expect(advice.reasons.length).toBeGreaterThan(0);
});

test('a way is called good only where its protocol is taken as the camera gives it, and its picture was seen', () => {
  const maybe = fc.constantFrom(true, false, null);
  const facts = fc.record({
    use: fc.constantFrom('record' as const, 'live' as const, 'detect' as const),
    takes: fc.option(fc.subarray(['rtsp', 'rtsps', 'tunnel', 'onvif', 'http'], { minLength: 1 })),
    line: fc.constantFrom('rtsp' as const, 'rtsps' as const, 'tunnel' as const),
    givesRtsp: maybe,
    givesOnvif: maybe,
    isAccountOnly: fc.boolean(),
    skewS: fc.constantFrom(0, -1e8, null),
    givesElsewhere: fc.boolean(),
    hasHead: maybe,
    wantsSteering: fc.boolean(),
    tellsMotion: maybe,
    forgetsListeners: fc.boolean(),
    isHiddenChannel: fc.boolean(),
    isHiddenCodec: fc.boolean(),
  });
  fc.assert(
    fc.property(facts, (f) => {
      const { way, verdict } = wayFor(f);
      if (verdict !== 'ok') return;
      expect(f.givesRtsp).toBe(true);
      if (way === 'rtsp' || way === 'both') expect(f.takes).toContain(f.line);
      if (way === 'onvif' || way === 'both') expect(f.takes).toContain('onvif');
      if (way === 'onvif') expect([f.isHiddenCodec, f.skewS === -1e8]).toEqual([false, false]);
    }),
    runs(2000),
  );
});
