import { expect, test } from '@jest/globals';
import { parseStreamUrl } from '../../src/core/net/stream-url-parser.ts';
import { NAMESPACES } from '../../src/core/onvif/namespaces.ts';
import type { RtspRequest } from '../../src/core/rtsp/rtsp-message.ts';
import { createTcpDialer } from '../../src/server/adapters/tcp-dialer.ts';
import type { World } from '../../src/server/drive.ts';
import { pinned } from '../../src/server/pinned.ts';
import { HEAR } from '../../src/server/works/hear-work.ts';
import { LIVE } from '../../src/server/works/live-work.ts';
import { runDiagnosed } from '../../src/server/works/run-diagnosed.ts';
import { runOnvif } from '../../src/server/works/run-onvif.ts';
import { runProbe } from '../../src/server/works/run-probe.ts';
import { runSessions } from '../../src/server/works/run-sessions.ts';
import { STILL } from '../../src/server/works/still-work.ts';
import { faultOf, servicesAnswer, timeAnswer } from '../../src/standins/onvif/onvif-answers.ts';
import { encrypted } from '../support/encrypted.ts';
import { startFaultyCamera } from '../support/faulty-camera.ts';
import { freshWorld } from '../support/onvif-doors.ts';
import { type CameRequest, http, scriptedDevice, soap } from '../support/scripted-device.ts';
import { healthy } from '../support/scripted-server.ts';
import { ACCOUNT, startTestCamera } from '../support/test-camera.ts';

// Accounts of devices are not locked by us, and passwords go where they were typed for: counted at the device.

const signal = new AbortController().signal;
const WRONG = { user: ACCOUNT.user, password: 'Heron & Otter/9' };
const urlOf = (text: string) => {
  const parsed = parseStreamUrl(text);
  if (!parsed.ok) throw new Error(text);
  return parsed.value.url;
};
const RUN = { transport: 'auto', seconds: 0.5, timeoutMs: 1500, media: true, paths: ['/a', '/b'] } as const;
const proofsIn = (requests: readonly CameRequest[]): number =>
  requests.filter(({ head, body }) => body.includes('<UsernameToken>') || /^authorization:/im.test(head)).length;

/** Everything that a page can ask of one device with one account, one after the other, twice. */
async function askAll(world: World, rtsp: string, port: number, credentials = WRONG): Promise<void> {
  const url = urlOf(rtsp);
  const login = { user: credentials.user, secret: credentials.password };
  const out = { sendEvent: () => {}, sendFrame: () => {} };
  for (let press = 0; press < 2; press++) {
    await runDiagnosed({ ...RUN, url, credentials, onvifPort: port }, world, signal);
    await runOnvif({ host: '127.0.0.1', port, credentials, timeoutMs: 800 }, world, signal);
    await runSessions({ url, credentials, transport: 'auto', most: 3, timeoutMs: 800 }, world, signal);
    await STILL.accept({ host: '127.0.0.1', port, path: '/still', ...login })(world, signal, out, () => {});
    await HEAR.accept({ host: '127.0.0.1', port, ...login, seconds: 1 })(world, signal, out, () => {});
    await LIVE.accept({ url: rtsp, ...login })(world, signal, out, () => {});
  }
}

test.each([
  { why: 'locks at three', locksAfter: 3, scheme: 'rtsp' as const },
  { why: 'locks at five', locksAfter: 5, scheme: 'rtsp' as const },
  { why: 'locks at three, over HTTP', locksAfter: 3, scheme: 'http' as const },
  { why: 'calls every login out of date', locksAfter: 3, scheme: 'rtsp' as const, nonces: 'stale' as const },
])(
  'of a camera that $why two logins are spent in all, over every protocol and press',
  async ({ locksAfter, scheme, nonces }) => {
    const camera = await startTestCamera({
      odd: { locksAfter, ...(nonces ? { nonces } : {}), ...(scheme === 'http' ? { line: 'tunnel' } : {}) },
    });
    const device = await scriptedDevice(({ operation }) =>
      operation.startsWith('GetS') ? null : http(faultOf('ter:NotAuthorized', 'no'), '', '400 Bad Request'),
    );
    const world = freshWorld();
    await askAll(world, camera.url.replace('rtsp:', `${scheme}:`), device.port);
    const spent = camera.refusals() + proofsIn(device.requests);
    expect(spent).toBe(2);
    expect(world.logins.lines()).toMatchObject([{ host: '127.0.0.1', user: WRONG.user, refused: 2, isHeld: true }]);
    // with the right one it begins anew: it was not locked
    if (!nonces) {
      const report = await runProbe(
        { ...RUN, url: urlOf(camera.url.replace('rtsp:', `${scheme}:`)), credentials: ACCOUNT },
        world,
        signal,
      );
      expect(report.steps.findLast(({ name }) => name === 'describe')).toMatchObject({ ok: true });
    }
    await Promise.all([camera.close(), device.close()]);
  },
  30_000,
);

test.each([
  { why: 'the right password: none is held', right: true, proofs: 8 },
  { why: 'a wrong password: two log in', right: false, proofs: 2 },
])('eight channels of one slow recorder, probed at once with $why', async ({ right, proofs }) => {
  const isProof = ({ headers }: RtspRequest): boolean => headers.some(({ name }) => name === 'Authorization');
  const recorder = await startFaultyCamera({
    delayMs: 60,
    script: (request, count) =>
      request.method === 'OPTIONS' || (right && isProof(request))
        ? healthy(request, count)
        : { status: 401, headers: { 'WWW-Authenticate': 'Digest realm="hall", nonce="n1"' } },
  });
  const world = freshWorld();
  const reports = await Promise.all(
    Array.from({ length: 8 }, (_, at) =>
      runProbe(
        { ...RUN, media: false, url: urlOf(`rtsp://127.0.0.1:${recorder.port}/ch/${at}`), credentials: ACCOUNT },
        world,
        new AbortController().signal,
      ),
    ),
  );
  expect(reports.filter(({ cause }) => cause === (right ? null : 'auth-failed'))).toHaveLength(proofs);
  expect(reports.filter(({ cause }) => cause === 'login-held')).toHaveLength(8 - proofs);
  await recorder.close();
});

const fault = (code: string, reason: string, status: string): string => http(faultOf(code, reason), '', status);
test.each([
  { why: 'not authorized', answer: fault('ter:NotAuthorized', 'no', '400 Bad Request'), most: 2 },
  { why: '401 without a challenge', answer: http('', '', '401 Unauthorized'), most: 2 },
  { why: '403', answer: http('', '', '403 Forbidden'), most: 1 },
  { why: '423', answer: http('', '', '423 Locked'), most: 1 },
  { why: '429', answer: http('', '', '429 Too Many Requests'), most: 1 },
  { why: '503', answer: http('', '', '503 Service Unavailable'), most: 2 },
  { why: 'FailedCheck', answer: fault('wsse:FailedCheck', 'The signature was invalid', '500 No'), most: 2 },
  { why: 'InvalidSecurity', answer: fault('wsse:InvalidSecurity', 'An error', '500 No'), most: 2 },
  {
    why: '“account locked”',
    answer: fault('ter:NotAuthorized', 'User account locked for 5 minutes', '400 No'),
    most: 1,
  },
  { why: 'another answer, a page', answer: http('<html>Login</html>', '', '200 OK', 'text/html'), most: 2 },
])('a device that answers a login with $why is sent $most, in three readings', async ({ answer, most }) => {
  const device = await scriptedDevice(({ operation, body }) =>
    body.includes('<UsernameToken>') || operation === 'GetDeviceInformation' ? answer : null,
  );
  const world = freshWorld();
  for (let press = 0; press < 3; press++)
    await runOnvif({ host: '127.0.0.1', port: device.port, credentials: WRONG, timeoutMs: 800 }, world, signal);
  expect(proofsIn(device.requests)).toBeGreaterThan(0);
  expect(proofsIn(device.requests)).toBeLessThanOrEqual(most);
  await device.close();
});

test('the third login is one that a person allowed, and the camera’s report says what was held', async () => {
  const camera = await startTestCamera({ odd: { locksAfter: 5 } });
  const world = freshWorld();
  const press = (oneMore: boolean) =>
    runDiagnosed(
      { ...RUN, url: urlOf(camera.url), credentials: WRONG, onvifPort: null, leave: { oneMore } },
      world,
      signal,
    );
  expect((await press(false)).cause).toBe('auth-failed');
  const held = await press(false);
  expect(held).toMatchObject({ cause: 'login-held', findings: [{ severity: 'stop', title: 'Login not tried' }] });
  expect(held.findings[0]?.because).toContain('refused twice');
  expect(camera.refusals()).toBe(2);
  await press(true);
  expect(camera.refusals()).toBe(3);
  await press(false);
  expect(camera.refusals()).toBe(3);
  await camera.close();
});

test('one more goes with the press that it was said for: unused, nobody has it later', () => {
  const { logins } = freshWorld();
  const gate = (oneMore: boolean) => logins.gateFor('Gate.local', WRONG, { oneMore });
  for (let times = 0; times < 2; times++) {
    expect(gate(false).begin()).toBeNull();
    gate(false).end('refused', 'DESCRIBE');
  }
  const allowed = gate(true);
  expect(gate(false).begin()).toMatchObject({ why: 'refused' });
  expect(allowed.begin()).toBeNull();
  expect(allowed.begin()).toMatchObject({ why: 'refused' });
  allowed.end('refused', 'GetServices');
  expect(gate(false).begin()).toMatchObject({ why: 'refused', refused: 3 });
  // accepted, it goes on: the account is not locked
  const again = gate(true);
  expect(again.begin()).toBeNull();
  again.end('accepted', 'GetServices');
  expect(again.begin()).toBeNull();
  again.end('accepted', 'GetProfiles');
  // by whatever name, and however that is written
  logins.noteAddress('Gate.local', '127.0.0.9');
  logins.gateFor('127.0.0.9', WRONG).end('refused', 'DESCRIBE');
  expect(logins.refused('gate.LOCAL', WRONG)).toBe(logins.refused('127.0.0.9', WRONG));
});

test('a login that was not sent is a step that did not succeed, though the camera asked before any', async () => {
  const camera = await startFaultyCamera({
    script: () => ({ status: 401, headers: { 'WWW-Authenticate': 'Digest realm="gate", nonce="n1"' } }),
  });
  const world = freshWorld();
  const press = () => runProbe({ ...RUN, url: urlOf(camera.url), credentials: WRONG }, world, signal);
  await press();
  await press();
  const held = await press();
  expect(held.cause).toBe('login-held');
  expect(held.steps.at(-1)).toMatchObject({ name: 'authenticate', ok: false, note: 'the login was not sent' });
  expect(camera.heard().match(/^Authorization:/gm)).toHaveLength(2);
  await camera.close();
});

test('the password goes readable to no device that offered better, until a person says so for it', async () => {
  const camera = await startTestCamera({ odd: { digest: 'broken' } });
  const run = { ...RUN, url: urlOf(camera.url), credentials: ACCOUNT, onvifPort: null };
  const world = freshWorld();
  expect((await runDiagnosed(run, world, signal)).verdict).toBe('fail');
  // a snapshot of the same host that takes Basic alone
  const device = await scriptedDevice(() => http('', 'WWW-Authenticate: Basic realm="x"\r\n', '401 No'));
  const said: unknown[] = [];
  const still = { host: '127.0.0.1', port: device.port, path: '/still', user: ACCOUNT.user, secret: 'another' };
  await STILL.accept(still)(world, signal, { sendEvent: (line) => said.push(line), sendFrame: () => {} }, () => {});
  expect(said).toMatchObject([{ kind: 'none', isHeld: true }]);
  expect(proofsIn(device.requests)).toBe(0);
  const allowed = { mayGoReadable: true, byBasic: true, oneMore: true };
  expect((await runDiagnosed({ ...run, leave: allowed }, world, signal)).cause).toBeNull();
  await Promise.all([camera.close(), device.close()]);
});

test('services at another port, or with TLS, get no proof before a person allowed that', async () => {
  const other = await scriptedDevice(() => null);
  const device = await scriptedDevice(({ operation }) =>
    operation === 'GetServices'
      ? soap(
          servicesAnswer(
            [{ namespace: NAMESPACES.media, path: '/onvif/media', version: [2, 0], capability: 'Media' }],
            `http://127.0.0.1:${other.port}`,
          ),
        )
      : null,
  );
  const target = { host: '127.0.0.1', port: device.port, credentials: ACCOUNT, timeoutMs: 800 };
  const reading = await runOnvif(target, freshWorld(), signal);
  expect(reading.heldDoors).toEqual([{ port: other.port, isTls: false }]);
  expect(proofsIn(other.requests)).toBe(0);
  await runOnvif({ ...target, alsoProve: reading.heldDoors }, freshWorld(), signal);
  expect(proofsIn(other.requests)).toBeGreaterThan(0);
  await Promise.all([device.close(), other.close()]);
});

test('over TLS a device is read, its certificate told, and a changed one gets no word', async () => {
  const device = await scriptedDevice(() => null);
  const outer = await encrypted(device.port);
  const target = {
    host: '127.0.0.1',
    port: outer.port,
    isTls: true,
    credentials: ACCOUNT,
    timeoutMs: 1500,
  };
  const reading = await runOnvif(target, freshWorld(), signal);
  expect(reading).toMatchObject({ cause: null, isTls: true, device: { model: 'S' }, tls: { isSelfSigned: true } });
  const before = device.requests.length;
  const changed = await runOnvif({ ...target, knownFingerprint: 'AB:CD' }, freshWorld(), signal);
  // it is told, so that a person can compare and trust it
  expect(changed).toMatchObject({ cause: 'certificate-changed', tls: { fingerprint: reading.tls?.fingerprint } });
  expect(device.requests.length).toBe(before);
  await Promise.all([outer.close(), device.close()]);
});

test('a device that takes no token is sent one once: later talks ask what it wants', async () => {
  const device = await scriptedDevice(({ operation, head }) =>
    operation.startsWith('GetS') || /^authorization: digest/im.test(head)
      ? null
      : http('', 'WWW-Authenticate: Digest realm="weir", nonce="n1", algorithm=MD5\r\n', '401 Unauthorized'),
  );
  const world = freshWorld();
  const target = { host: '127.0.0.1', port: device.port, credentials: ACCOUNT, timeoutMs: 1500 };
  for (let press = 0; press < 3; press++)
    expect(await runOnvif(target, world, signal)).toMatchObject({ device: { model: 'S' }, login: 'digest' });
  expect(device.requests.filter(({ body }) => body.includes('<UsernameToken>'))).toHaveLength(1);
  await device.close();
});

test('a device that took digests and wants tokens now is sent tokens', async () => {
  const device = await scriptedDevice(({ operation, body }) =>
    operation === 'GetSystemDateAndTime' || operation === 'GetServices' || body.includes('<UsernameToken>')
      ? null
      : http(faultOf('ter:NotAuthorized', 'no'), '', '400 Bad Request'),
  );
  const world = freshWorld();
  world.logins.gateFor('127.0.0.1', ACCOUNT).noteDigest();
  const target = { host: '127.0.0.1', port: device.port, credentials: ACCOUNT, timeoutMs: 1500 };
  expect(await runOnvif(target, world, signal)).toMatchObject({ device: { model: 'S' }, login: 'token' });
  expect(world.logins.lines()).toEqual([]);
  await device.close();
});

test('a token is not dated years ahead by the clock of a device', async () => {
  const device = await scriptedDevice(({ operation }) =>
    operation === 'GetSystemDateAndTime'
      ? soap(timeAnswer(Date.now() + 5 * 365 * 86_400_000, 'NTP'))
      : operation === 'GetServices'
        ? null
        : http(faultOf('ter:NotAuthorized', 'no'), '', '400 Bad Request'),
  );
  const reading = await runOnvif(
    { host: '127.0.0.1', port: device.port, credentials: ACCOUNT, timeoutMs: 800 },
    freshWorld(),
    signal,
  );
  expect(reading.cause).toBe('clock-ahead');
  expect(proofsIn(device.requests)).toBe(0);
  await device.close();
});

test('a name is looked up once for one piece of work, and an account is one by whatever name', async () => {
  let asked = 0;
  const dialer = createTcpDialer({
    allowPublic: false,
    lookUpName: async () => {
      asked += 1;
      return asked === 1 ? '127.0.0.1' : '127.0.0.2';
    },
  });
  const camera = await startTestCamera({ odd: { locksAfter: 5 } });
  const world = pinned({ ...freshWorld(), dialer });
  const run = { ...RUN, credentials: WRONG, onvifPort: null };
  await runDiagnosed({ ...run, url: urlOf(camera.url.replace('127.0.0.1', 'weir.test')) }, world, signal);
  expect(asked).toBe(1);
  await runDiagnosed({ ...run, url: urlOf(camera.url) }, world, signal);
  expect(camera.refusals()).toBe(2);
  await camera.close();
});

test('plain RTSP is offered on no TLS alert: whoever sends one speaks TLS, or would have us believe it', async () => {
  const alert = Buffer.from([0x15, 0x03, 0x03, 0x00, 0x02, 0x02, 0x28]);
  const camera = await startFaultyCamera({
    onConnect: (socket) =>
      socket.once('data', (first) => {
        if (first[0] === 0x16) socket.end(alert);
      }),
    script: healthy,
  });
  const url = urlOf(camera.url.replace('rtsp:', 'rtsps:'));
  const report = await runDiagnosed({ ...RUN, url, credentials: ACCOUNT, onvifPort: null }, freshWorld(), signal);
  expect(report).toMatchObject({ cause: 'tls-failed', diagnosis: { found: null } });
  expect(camera.heard()).not.toContain('RTSP/1.0');
  await camera.close();
});
