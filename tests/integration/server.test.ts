import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { decodeLiveFrame, encodeLiveFrame } from '../../src/contract/live-frame.ts';
import type { ProbeEvent } from '../../src/contract/probe-api.ts';
import { mayDial } from '../../src/server/adapters/address-policy.ts';
import { createRealFinder } from '../../src/server/adapters/real-finder.ts';
import { createSimulatedDialer } from '../../src/server/adapters/simulated-network.ts';
import { systemClock, systemEntropy } from '../../src/server/adapters/system.ts';
import { createTcpDialer } from '../../src/server/adapters/tcp-dialer.ts';
import { createApp } from '../../src/server/app.ts';
import { Logins } from '../../src/server/logins.ts';
import { RunningWork } from '../../src/server/works/running-work.ts';
import { alderMill, alderMillSecrets } from '../../src/standins/alder-mill.ts';
import { ACCOUNT, probeRequest, startTestCamera, type TestCamera } from '../support/test-camera.ts';

let camera: TestCamera;
let app: ReturnType<typeof createApp>;
const HOST = '127.0.0.1:4180';
const OURS = { host: HOST, 'x-clear-tap': '1' };

beforeAll(async () => {
  camera = await startTestCamera();
  const network = {
    loopbackPort: (host: string, port: number) => (host === '10.77.4.99' && port === 554 ? camera.port : undefined),
    hasHost: (host: string) => host === '10.77.4.99',
  };
  const world = {
    dialer: createSimulatedDialer(network),
    finder: createRealFinder({ host: '127.0.0.1', port: 9 }),
    clock: systemClock,
    entropy: systemEntropy,
    logins: new Logins(systemClock, systemEntropy),
  };
  const site = () => ({ site: alderMill('2026-11-25T09:00:00.000Z'), secrets: alderMillSecrets() });
  const demo = {
    site,
    standin: async () => null,
    faults: () => ({ faults: [] }),
    router: () => ({ reservations: [], leases: '' }),
  };
  const running = new RunningWork();
  const hosts = () => new Set([HOST]);
  app = createApp({ world, network: 'simulated', demo, hosts, token: null, running, heartbeatMs: 300 });
});
afterAll(() => camera.close());

const post = (body: unknown, headers: Record<string, string> = OURS) =>
  app.request('/api/probe', { method: 'POST', headers, body: typeof body === 'string' ? body : JSON.stringify(body) });
const REQUEST = probeRequest('rtsp://10.77.4.99/live');

test.each([
  { why: 'another site’s page', headers: { ...OURS, origin: 'http://evil.example' }, status: 403 },
  { why: 'a name that was pointed here', headers: { ...OURS, host: 'evil.example:4180' }, status: 403 },
  { why: 'a form without our header', headers: { host: HOST }, status: 403 },
  { why: 'a sandboxed page', headers: { ...OURS, origin: 'null' }, status: 403 },
  { why: 'our own page', headers: { ...OURS, origin: `http://${HOST}` }, status: 200 },
  { why: 'a tool of ours', headers: OURS, status: 200 },
])('who may ask: $why', async ({ headers, status }) => {
  expect((await app.request('/api/info', { headers })).status).toBe(status);
});

test('with a token, nobody asks without it', async () => {
  const world = {
    dialer: createSimulatedDialer({ loopbackPort: () => undefined, hasHost: () => false }),
    finder: createRealFinder({ host: '127.0.0.1', port: 9 }),
    clock: systemClock,
    entropy: systemEntropy,
    logins: new Logins(systemClock, systemEntropy),
  };
  const guarded = createApp({
    world,
    network: 'real',
    demo: null,
    hosts: () => new Set([HOST]),
    token: 't0ken',
    running: new RunningWork(),
  });
  expect((await guarded.request('/api/info', { headers: OURS })).status).toBe(401);
  expect((await guarded.request('/api/info', { headers: { ...OURS, 'x-clear-tap-token': 't0ken' } })).status).toBe(200);
  expect((await guarded.request('/api/demo', { headers: { ...OURS, 'x-clear-tap-token': 't0ken' } })).status).toBe(404);
});

test.each([
  { why: 'no JSON', body: 'hello' },
  { why: 'a missing field', body: { url: 'rtsp://x/' } },
  { why: 'an unknown field', body: { ...REQUEST, more: 1 } },
  { why: 'a number as text', body: { ...REQUEST, seconds: '3' } },
  { why: 'an endless sample', body: { ...REQUEST, seconds: 86_400 } },
])('a bad request is named: $why', async ({ body }) => {
  const response = await post(body);
  expect(response.status).toBe(400);
  expect(await response.json()).toMatchObject({ status: 400, title: expect.any(String), detail: expect.any(String) });
});

test('a body beyond any request is not read', async () => expect((await post('x'.repeat(20_000))).status).toBe(413));

async function events(body: object): Promise<ProbeEvent[]> {
  const response = await post(body);
  expect(response.status).toBe(200);
  return (await response.text())
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => JSON.parse(line));
}

test('a probe streams its steps and tape as they happen, and ends with the report', async () => {
  const seen = await events(REQUEST);
  expect(seen[0]).toMatchObject({ kind: 'stepBegan', name: 'resolve' });
  expect(seen.at(-1)).toMatchObject({ kind: 'report', report: { verdict: 'ok' } });
  expect(seen.filter(({ kind }) => kind === 'tape').length).toBeGreaterThan(8);
  expect(JSON.stringify(seen)).not.toContain(ACCOUNT.password);
  expect(JSON.stringify(seen)).not.toContain('Weir%20');
});

test('a sample that runs until it is stopped is judged by what came until then', async () => {
  const probeId = 'probe-until-stopped';
  const response = await post({ ...REQUEST, seconds: 600, probeId });
  let seen = '';
  let toldAtMs = 0;
  for await (const part of response.body ?? []) {
    seen += new TextDecoder().decode(part);
    if (toldAtMs > 0 || !seen.includes('"name":"sample"')) continue;
    await new Promise((resolve) => setTimeout(resolve, 1200));
    toldAtMs = performance.now();
    const told = await app.request('/api/enough', {
      method: 'POST',
      headers: { ...OURS, 'content-type': 'application/json' },
      body: JSON.stringify({ probeId }),
    });
    expect(told.status).toBe(200);
  }
  expect(performance.now() - toldAtMs).toBeLessThan(3000);
  // silent for a second, and an empty line said that it goes on
  expect(seen).toContain('\n\n');
  const last = JSON.parse(seen.trim().split('\n').at(-1) ?? '');
  expect(last).toMatchObject({ kind: 'report', report: { verdict: 'ok', cause: null } });
  expect(last.report.media[0].measured.seconds).toBeGreaterThan(1);
});

test.each([
  { why: 'not a URL', url: 'the weir', cause: 'bad-url' },
  { why: 'a web page', url: 'http://10.77.4.99/', cause: 'bad-url' },
  { why: 'an address that is not in the simulated network', url: 'rtsp://192.168.1.10/x', cause: 'unreachable' },
  { why: 'a public address', url: 'rtsp://198.51.100.7/x', cause: 'unreachable' },
  { why: 'a port where nothing listens', url: 'rtsp://10.77.4.99:8554/live', cause: 'refused' },
  { why: 'a name', url: 'rtsp://weir.example/x', cause: 'unresolved-host' },
])('in the demo nothing else is ever dialled: $why', async ({ url, cause }) => {
  const seen = await events({ ...REQUEST, url });
  expect(seen.at(-1)).toMatchObject({ kind: 'report', report: { verdict: 'fail', cause } });
});

test('the demo brings its site without secrets, and the secrets apart', async () => {
  const body = await (await app.request('/api/demo', { headers: OURS })).json();
  expect(
    Object.values(alderMillSecrets()).every(
      (secret) => secret.length > 3 && !JSON.stringify(body.site).includes(secret),
    ),
  ).toBe(true);
  expect(body.secrets).toEqual(alderMillSecrets());
});

// Source: RFC 1918, 3927, 4193, 4291, 6598 and the IANA special-purpose registries.
test.each([
  { address: '10.77.4.21', may: true },
  { address: '172.16.0.1', may: true },
  { address: '192.168.1.1', may: true },
  { address: '127.0.0.1', may: true },
  { address: '169.254.3.4', may: true },
  { address: 'fd12::1', may: true },
  { address: 'fe80::1', may: true },
  { address: '::ffff:10.0.0.1', may: true },
  { address: '8.8.8.8', may: false },
  { address: '::ffff:8.8.8.8', may: false },
  { address: '2001:db8::1', may: false },
  { address: '224.0.0.1', may: false },
  { address: '0.0.0.0', may: false },
  { address: '255.255.255.255', may: false },
  { address: '010.1.1.1', may: false },
  { address: '10.1', may: false },
  { address: '0x0a000001', may: false },
  { address: 'camera', may: false },
])('policy: $address may be dialled: $may', ({ address, may }) => expect(mayDial(address, false)).toBe(may));

test('policy: told otherwise, public addresses too, but nothing that is no unicast', () => {
  expect(mayDial('8.8.8.8', true)).toBe(true);
  expect(mayDial('224.0.0.1', true)).toBe(false);
});

test.each([
  {
    why: 'a public address',
    address: '198.51.100.7',
    cause: 'blocked-by-policy',
    says: /weir\.mill \(198\.51\.100\.7\)/,
  },
  { why: 'a public IPv4 inside IPv6', address: '::ffff:198.51.100.7', cause: 'blocked-by-policy', says: /public/ },
  { why: 'no address at all', address: 'elsewhere', cause: 'blocked-by-policy', says: /special/ },
])('the policy is asked about what a name leads to: $why', async ({ address, cause, says }) => {
  const dialer = createTcpDialer({ allowPublic: false, lookUpName: async () => address });
  const limits = { timeoutMs: 1000, signal: new AbortController().signal };
  await expect(dialer.resolve('weir.mill', 554, limits)).rejects.toMatchObject({
    probeCause: cause,
    message: expect.stringMatching(says),
  });
});

test('a name is asked once: its second answer cannot lead the dialled connection elsewhere', async () => {
  const answers = ['127.0.0.1', '198.51.100.7'];
  const dialer = createTcpDialer({ allowPublic: false, lookUpName: async () => answers.shift() ?? '' });
  const limits = { timeoutMs: 1000, signal: new AbortController().signal };
  const resolved = await dialer.resolve('weir.mill', camera.port, limits);
  const connection = await dialer.dial(resolved, { onData: () => {}, onEnd: () => {} }, limits);
  connection.close();
  expect(resolved).toEqual({ address: '127.0.0.1', port: camera.port, note: '127.0.0.1' });
  expect(answers).toEqual(['198.51.100.7']);
});

test.each([
  { isSound: false, takenUnixMs: 1_795_596_415_500.25 },
  { isSound: false, takenUnixMs: null },
  { isSound: true, takenUnixMs: null },
])('a live picture, and its sound, cross to the page unharmed', ({ isSound, takenUnixMs }) => {
  const frame = {
    isSound,
    isKeyFrame: true,
    arrivedUnixMs: 1_795_596_415_501,
    takenUnixMs,
    accessUnit: Uint8Array.of(0, 0, 0, 1, 0x65),
  };
  expect(decodeLiveFrame(encodeLiveFrame(frame).buffer)).toEqual(frame);
  expect(decodeLiveFrame(new ArrayBuffer(5))).toBeNull();
});
