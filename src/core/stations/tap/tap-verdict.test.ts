import { expect, test } from '@jest/globals';
import { apply, mill, probed, report } from '../../../../tests/support/sites.ts';
import { type Verdict, worstVerdict } from '../../base/verdict.ts';
import type { Site } from '../../document/site.ts';
import { indexEvidence } from '../../evidence/evidence-index.ts';
import { judgeProbe, rememberedProbe } from '../../evidence/remembered-probe.ts';
import type { ProbeReport } from '../../probe/probe-types.ts';
import { viewOf } from '../../site/site-view.ts';
import { TAP } from './index.ts';

const SHOWN = {
  protocol: 'TLSv1.3',
  subject: 'Sluice',
  issuer: 'Sluice',
  isSelfSigned: true,
  validFromUnixMs: Date.UTC(2020, 0, 1),
  validToUnixMs: Date.UTC(2022, 0, 1),
  seenAtUnixMs: Date.UTC(2026, 10, 25),
  names: [],
  keyBits: 2048,
  isElliptic: false,
  signatureHash: null,
  fingerprint: 'AB:CD',
} as const;

const judged = (site: Site) => {
  const [camera] = site.cameras;
  if (!camera) throw new Error('a camera');
  return TAP.judge(camera, viewOf(site, indexEvidence(site.journal)));
};
const given = (changed: Partial<ProbeReport>): Site =>
  apply(mill(), probed('sluice', { ...report({ kbps: 800 }), ...changed }));
const sound = report({ kbps: 800 });
const [picture] = sound.media;
if (!picture?.measured) throw new Error('a measured picture');
const { measured } = picture;

test.each<{ why: string; changed: Partial<ProbeReport>; verdict: Verdict; open?: RegExp }>([
  { why: 'all that is asked was measured', changed: {}, verdict: 'ok' },
  {
    why: 'a certificate that ran out is refused by most, whatever its severity: won’t work, as at every station',
    changed: { tls: SHOWN },
    verdict: 'will-not-work',
  },
  { why: 'without a login it is tight', changed: { auth: { ...sound.auth, scheme: 'none' } }, verdict: 'tight' },
  {
    why: 'without a sample nobody knows what is lost',
    changed: { media: [{ ...picture, measured: null }] },
    verdict: 'unknown',
    open: /packet loss/,
  },
  {
    why: 'one key frame alone tells no interval',
    changed: { media: [{ ...picture, measured: { ...measured, keyframeIntervalSeconds: null } }] },
    verdict: 'unknown',
    open: /key-frame/i,
  },
  {
    why: 'sound that is described and never came is not known',
    changed: {
      media: [
        picture,
        {
          ...picture,
          kind: 'audio',
          codec: 'AAC',
          clockRate: 16_000,
          declared: { ...picture.declared, sampleRate: 16_000, channels: 1 },
          measured: null,
          parameterSets: null,
        },
      ],
    },
    verdict: 'unknown',
    open: /audio/i,
  },
  {
    why: 'pictures that each stand alone have no key frames to ask for',
    changed: {
      media: [
        { ...picture, codec: 'JPEG', parameterSets: null, measured: { ...measured, keyframeIntervalSeconds: null } },
      ],
    },
    verdict: 'ok',
  },
])('Tap: $why', ({ changed, verdict, open }) => {
  const found = judged(given(changed));
  expect(found.verdict).toBe(verdict);
  if (open) expect(found.open.join(' ')).toMatch(open);
  else expect(found.open).toEqual([]);
});

test('the verdict is the worst of what its rows say, each counted where it weighs', () => {
  for (const changed of [{}, { tls: SHOWN }, { auth: { ...sound.auth, scheme: 'basic' as const } }]) {
    const site = given(changed);
    const probe = rememberedProbe(indexEvidence(site.journal), 'sluice-main');
    const rows = probe ? judgeProbe(probe, {}, undefined).rows : [];
    const grave = rows.filter(({ finding, verdict }) =>
      finding ? finding.severity === 'stop' || finding.severity === 'fix' : verdict !== 'ok',
    );
    const unweighed = grave.filter(({ weighs }) => weighs).map(({ verdict }) => verdict);
    expect(judged(site).verdict).toBe(worstVerdict(['ok', ...unweighed]));
  }
});
