import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { MOST_REFUSED_LOGINS } from '../../src/core/auth/login-ledger.ts';
import { GALLERY_ANSWERS, verdictOf } from '../../src/core/gallery/answers.ts';
import { readTarget } from '../../src/core/net/target.ts';
import { reportOfBadTarget } from '../../src/core/probe/probe-report.ts';
import type { ProbeReport } from '../../src/core/probe/probe-types.ts';
import { createSimulatedDialer } from '../../src/server/adapters/simulated-network.ts';
import { runDiagnosed } from '../../src/server/works/run-diagnosed.ts';
import { FAULT_GALLERY, type GalleryFault } from '../../src/standins/faults/fault-gallery.ts';
import { type GalleryNetwork, startGallery } from '../../src/standins/faults/gallery-network.ts';
import { plainWorld } from '../support/onvif-doors.ts';

const TIMEOUT_MS = 1500;
let gallery: GalleryNetwork;
const reports = new Map<string, { readonly report: ProbeReport; readonly tookMs: number }>();

async function take({ url, user, secret, seconds, paths, is }: GalleryFault) {
  const startedMs = performance.now();
  const target = readTarget(url, user, secret);
  const finder = { ...plainWorld.finder, ownNetworks: () => ['10.77.66.0/24'] };
  const world = { ...plainWorld, finder, dialer: createSimulatedDialer(gallery) };
  // by Basic it is tried only where a person says so
  const leave = { mayGoReadable: is === 'scheme-broken' };
  const run = {
    seconds,
    leave,
    timeoutMs: TIMEOUT_MS,
    media: true,
    transport: 'auto',
    paths,
    onvifPort: null,
  } as const;
  const report = target.ok
    ? await runDiagnosed({ ...run, ...target.value }, world, new AbortController().signal)
    : reportOfBadTarget(target.error);
  return { report, tookMs: performance.now() - startedMs };
}

beforeAll(async () => {
  gallery = await startGallery(FAULT_GALLERY);
  await Promise.all(FAULT_GALLERY.map(async (fault) => reports.set(fault.id, await take(fault))));
}, 60_000);
afterAll(() => gallery.close());

test.each(FAULT_GALLERY.map((fault) => ({ ...fault })))(
  '$name is told to be $is, by experiment, in time',
  ({ id, is, seconds }) => {
    const taken = reports.get(id);
    expect(taken && { is: verdictOf(taken.report), because: taken.report.findings[0]?.because }).toMatchObject({ is });
    const { diagnosis } = taken?.report ?? {};
    // a reason names the experiment that proved it
    const proofs = (diagnosis?.experiments ?? []).filter(({ decides }) => decides);
    // but for a refused login, which a lock would refuse alike
    expect(proofs).toHaveLength(diagnosis?.reason && diagnosis.reason !== 'secret-wrong' ? 1 : 0);
    for (const { told } of proofs) expect(taken?.report.findings[0]?.because).toContain(told);
    expect(taken?.tookMs).toBeLessThan(4 * TIMEOUT_MS + 2 * TIMEOUT_MS + seconds * 1000 + 1500);
    expect(gallery.cameraOf(id)?.sessions() ?? 0).toBe(0);
    expect(gallery.cameraOf(id)?.refusals() ?? 0).toBeLessThanOrEqual(MOST_REFUSED_LOGINS);
  },
);

test('every fault can be guessed, and no answer is there twice', () => {
  const answers = GALLERY_ANSWERS.flatMap((group) => group.answers.map(({ id }) => id));
  expect(new Set(answers).size).toBe(answers.length);
  expect(FAULT_GALLERY.filter(({ is }) => !answers.includes(is))).toEqual([]);
  expect(new Set(FAULT_GALLERY.map(({ is }) => is))).toEqual(new Set(answers));
});
