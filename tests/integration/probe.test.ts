import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type BrokenPeerKind, startBrokenPeer } from '../../src/standins/broken-peers.ts';
import { ACCOUNT, probe, startTestCamera, type TestCamera } from '../support/test-camera.ts';

let healthy: TestCamera;
beforeAll(async () => {
  healthy = await startTestCamera();
});
afterAll(() => healthy.close());

test('a healthy camera is measured as it is made', async () => {
  const { report } = await probe(healthy.url, { seconds: 2 });
  expect(report).toMatchObject({
    verdict: 'ok',
    cause: null,
    server: 'test/1',
    auth: { scheme: 'digest-md5', qop: 'auth', realm: 'test weir' },
    sessionTimeoutS: 60,
  });
  const [video] = report.media;
  expect(video).toMatchObject({
    codec: 'H264',
    declared: { width: 160, height: 96, fps: 15 },
    measured: { width: 160, height: 96, lost: 0, keyframeIntervalFrames: 10 },
  });
  expect(video?.measured?.fps).toBeCloseTo(15, 0);
  expect(Math.abs(report.clockErrorMs ?? 9999)).toBeLessThan(1000);
  // others may take the machine's cores: that packets came late says nothing of the camera
  expect(report.findings.filter(({ rule }) => rule !== 'rtp.jitter')).toEqual([]);
  expect(report.steps.map(({ name }) => name)).toEqual([
    'resolve',
    'connect',
    'options',
    'describe',
    'authenticate',
    'setup',
    'play',
    'first-packet',
    'first-keyframe',
    'sample',
    'teardown',
  ]);
});

test.each([
  { why: 'without qop', more: { digestQop: null } },
  { why: 'without a login', more: { account: null } },
])('a camera $why is drawn too', async ({ more }) => {
  const camera = await startTestCamera(more);
  try {
    const { report } = await probe(camera.url, { media: false });
    expect(report).toMatchObject({ cause: null, auth: { qop: null } });
    expect(report.verdict).toBe(more.account === null ? 'warn' : 'ok');
  } finally {
    await camera.close();
  }
});

test('lost packets agree with the camera’s own count of packets it dropped', async () => {
  const camera = await startTestCamera({ dropEvery: 9 });
  try {
    const { report } = await probe(camera.url, { seconds: 2 });
    const [ended] = camera.ended;
    expect(ended?.dropped).toBeGreaterThan(3);
    expect(report.media[0]?.measured).toMatchObject({ lost: ended?.dropped, packets: ended?.sent });
    expect(report.verdict).toBe('warn');
    expect(report.findings[0]?.rule).toBe('rtp.loss');
  } finally {
    await camera.close();
  }
});

const failing: {
  why: string;
  act: () => Promise<{ report: { cause: string | null; verdict: string }; tookMs: number }>;
  cause: string;
  withinMs: number;
}[] = [
  {
    why: 'a wrong secret',
    act: () => probe(healthy.url, { credentials: { ...ACCOUNT, password: 'wrong' } }),
    cause: 'auth-failed',
    withinMs: 1000,
  },
  {
    why: 'a wrong user',
    act: () => probe(healthy.url, { credentials: { user: 'nobody', password: 'x' } }),
    cause: 'auth-failed',
    withinMs: 1000,
  },
  { why: 'no account', act: () => probe(healthy.url, { credentials: null }), cause: 'auth-required', withinMs: 1000 },
  { why: 'a wrong path', act: () => probe(`${healthy.url}/MAIN`), cause: 'not-found', withinMs: 1000 },
  { why: 'a public address', act: () => probe('rtsp://198.51.100.7/x'), cause: 'blocked-by-policy', withinMs: 500 },
  {
    why: 'a name that leads nowhere',
    act: () => probe('rtsp://no-such-camera.invalid/x'),
    cause: 'unresolved-host',
    withinMs: 3500,
  },
];
test.each(failing)('fails with its cause, in time: $why', async ({ act, cause, withinMs }) => {
  const { report, tookMs } = await act();
  expect(report).toMatchObject({ verdict: 'fail', cause });
  expect(tookMs).toBeLessThan(withinMs);
});

test.each<{ kind: BrokenPeerKind; cause: string; withinMs: number }>([
  { kind: 'silent', cause: 'timeout', withinMs: 1500 },
  { kind: 'garbage', cause: 'not-rtsp', withinMs: 1000 },
  { kind: 'web', cause: 'not-rtsp', withinMs: 1000 },
  { kind: 'closing', cause: 'closed', withinMs: 1000 },
])('a peer that is no camera: $kind', async ({ kind, cause, withinMs }) => {
  const peer = await startBrokenPeer(kind);
  const { report, tookMs } = await probe(`rtsp://127.0.0.1:${peer.port}/live`, { timeoutMs: 800 });
  await peer.close();
  expect(report).toMatchObject({ verdict: 'fail', cause });
  expect(tookMs).toBeLessThan(withinMs);
});

test('a closed port refuses at once', async () => {
  const peer = await startBrokenPeer('silent');
  await peer.close();
  const { report } = await probe(`rtsp://127.0.0.1:${peer.port}/live`);
  expect(report).toMatchObject({
    cause: 'refused',
    steps: [
      { name: 'resolve', ok: true },
      { name: 'connect', ok: false },
    ],
  });
});

test('a stream that stops mid-sample is told, and the session is ended', async () => {
  const camera = await startTestCamera({ stopsAfterMs: 700 });
  const { report, tookMs } = await probe(camera.url, { seconds: 3 });
  expect(report).toMatchObject({ verdict: 'fail', cause: 'no-packets' });
  expect(report.findings[0]?.because).toMatch(/stopped/);
  expect(report.steps.at(-1)).toMatchObject({ name: 'teardown', status: 200 });
  expect(tookMs).toBeLessThan(8000);
  expect(camera.sessions()).toBe(0);
  await camera.close();
});

test('cancelling closes the session at the camera at once', async () => {
  const controller = new AbortController();
  const running = probe(healthy.url, { seconds: 30, signal: controller.signal });
  const waitFor = async (holds: () => boolean): Promise<void> => {
    for (let i = 0; i < 200 && !holds(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  };
  await waitFor(() => healthy.sessions() === 1);
  expect(healthy.sessions()).toBe(1);
  controller.abort(new Error('cancelled by test'));
  await expect(running).rejects.toThrow('cancelled by test');
  await waitFor(() => healthy.sessions() === 0);
  expect(healthy.sessions()).toBe(0);
});

test('one client more than the camera serves is refused with 453', async () => {
  const camera = await startTestCamera({ maxSessions: 1 });
  const controller = new AbortController();
  const first = probe(camera.url, { seconds: 20, signal: controller.signal }).catch(() => null);
  for (let i = 0; i < 200 && camera.sessions() === 0; i++) await new Promise((resolve) => setTimeout(resolve, 10));
  const { report } = await probe(camera.url);
  expect(report).toMatchObject({ cause: 'too-many-sessions' });
  controller.abort(new Error('done'));
  await first;
  await camera.close();
});
