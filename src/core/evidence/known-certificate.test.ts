import { expect, test } from '@jest/globals';
import { apply, mill, report } from '../../../tests/support/sites.ts';
import type { Site } from '../document/site.ts';
import { plainUrlOf } from '../document/stream-address.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import { indexEvidence } from './evidence-index.ts';
import { changedFingerprint, knownFingerprint } from './known-certificate.ts';
import { probeRecord } from './measured-records.ts';

const [OLD, NEW] = ['AA:AA', 'BB:BB'];
const shown = (fingerprint: string): ProbeReport['tls'] => ({
  protocol: 'TLSv1.3',
  subject: 's',
  issuer: 's',
  isSelfSigned: true,
  validFromUnixMs: 0,
  validToUnixMs: 1,
  seenAtUnixMs: 0,
  names: [],
  keyBits: 256,
  isElliptic: true,
  signatureHash: 'SHA-256',
  fingerprint,
});

function probedWith(site: Site, probeId: string, given: Partial<ProbeReport>): Site {
  const [camera] = site.cameras;
  const [stream] = camera?.streams ?? [];
  if (!camera || !stream) throw new Error('no stream');
  const url = plainUrlOf(camera, stream);
  return apply(site, probeRecord({ streamId: stream.id, url, probeId, report: { ...report(given), ...given } }));
}
function known(site: Site) {
  const [camera] = site.cameras;
  const [stream] = camera?.streams ?? [];
  if (!camera || !stream) throw new Error('no stream');
  const index = indexEvidence(site.journal);
  return { fingerprint: knownFingerprint(index, camera, stream), changed: changedFingerprint(index, stream.id) };
}

test('a certificate is known by the last good probe; another is not, until a person trusts it', () => {
  const start = mill();
  expect(known(start)).toEqual({ fingerprint: null, changed: null });
  const first = probedWith(start, 'p1', { tls: shown(OLD) });
  expect(known(first)).toEqual({ fingerprint: OLD, changed: null });
  const changed = probedWith(first, 'p2', { tls: shown(NEW), cause: 'certificate-changed', verdict: 'fail' });
  expect(known(changed)).toEqual({ fingerprint: OLD, changed: NEW });
  const trusted = apply(changed, { kind: 'trustCertificate', cameraId: 'sluice', fingerprint: NEW, by: 'by eye' });
  expect(known(trusted).fingerprint).toBe(NEW);
});

test('a certificate that was trusted for ONVIF says nothing of one that RTSP shows', () => {
  const first = probedWith(mill(), 'p1', { tls: shown(OLD) });
  const trusted = apply(first, { kind: 'trustCertificate', cameraId: 'sluice', fingerprint: 'CC:CC', by: 'by eye' });
  expect(known(trusted).fingerprint).toBe(OLD);
});

test('at another address none is known', () => {
  const first = probedWith(mill(), 'p1', { tls: shown(OLD) });
  const moved = apply(first, { kind: 'setAddress', cameraId: 'sluice', host: '10.77.4.99', port: 554 });
  expect(known(moved).fingerprint).toBeNull();
});
