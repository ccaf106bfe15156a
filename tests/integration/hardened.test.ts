import { spawnSync } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { request } from 'node:http';
import { createServer, type Socket } from 'node:net';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import WebSocket from 'ws';
import { LIVE_PROTOCOL } from '../../src/contract/app-header.ts';
import { openUdpPair } from '../../src/server/adapters/udp-pair.ts';
import { isLoopback, namesOf } from '../../src/server/listening.ts';
import { interleaved, rtp } from '../support/fake-media.ts';
import { startFaultyCamera } from '../support/faulty-camera.ts';
import { type RunningServer, sayRaw, startServer, upgrade } from '../support/running-server.ts';
import { healthy } from '../support/scripted-server.ts';
import { ACCOUNT, probeRequest, startTestCamera, type TestCamera } from '../support/test-camera.ts';

// What once ended the server, or made it deaf: each from outside, against the server as it is shipped.

let server: RunningServer;
let camera: TestCamera;
beforeAll(async () => {
  [server, camera] = await Promise.all([startServer(), startTestCamera()]);
});
afterAll(async () => {
  server.process.kill('SIGKILL');
  await camera.close();
});

const APP = { 'x-clear-tap': '1', 'content-type': 'application/json' };
const own = (port = server.port) => `127.0.0.1:${port}`;

interface Answer {
  readonly status: number;
  readonly location: string | undefined;
  readonly policy: string;
  readonly text: string;
}
function ask(path: string, headers: Record<string, string> = {}, body?: object, port = server.port): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const call = request(
      { host: '127.0.0.1', port, path, method: body ? 'POST' : 'GET', headers: { host: own(port), ...headers } },
      (response) => {
        let text = '';
        response.on('data', (chunk) => {
          text += chunk;
        });
        response.on('close', () =>
          resolve({
            status: response.statusCode ?? 0,
            location: response.headers.location,
            policy: String(response.headers['content-security-policy']),
            text,
          }),
        );
      },
    );
    call.on('error', reject);
    call.end(body ? JSON.stringify(body) : undefined);
  });
}
/** The report of a probe that the running server makes. */
async function report(url: string, more: object = {}): Promise<{ cause: string | null; verdict: string }> {
  const { status, text } = await ask('/api/probe', APP, probeRequest(url, more));
  expect(status).toBe(200);
  return JSON.parse(text.trim().split('\n').at(-1) ?? '').report;
}
const isAlive = async (): Promise<void> => {
  expect((await ask('/api/health')).status).toBe(200);
  expect(server.process.exitCode).toBeNull();
};

test.each([
  { why: 'an address that is none', target: '//', status: 404 },
  { why: 'another such', target: 'http://[', status: 404 },
  { why: 'a path of no view', target: '/api/probe', status: 404 },
  { why: 'the page', target: '/', status: 404 },
  { why: 'the live view of another site', target: '/api/live', status: 403, more: ['Origin: https://evil.example'] },
  { why: 'an address of another site', target: '//', status: 403, more: ['Origin: https://evil.example'] },
  { why: 'the live view without our word', target: '/api/live', status: 403 },
  {
    why: 'a handshake that is none',
    target: '/api/live',
    status: 400,
    more: [`Sec-WebSocket-Protocol: ${LIVE_PROTOCOL}`, 'Sec-WebSocket-Version: 99'],
  },
])('an upgrade of $why is answered $status and closed', async ({ target, status, more = [] }) => {
  const { answer, isClosed } = await sayRaw(server.port, upgrade(target, server.port, more));
  expect(answer).toMatch(new RegExp(`^HTTP/1.1 ${status}`));
  expect(isClosed).toBe(true);
  await isAlive();
});

test('a WebSocket of a foreign page to any address leaves the server standing', async () => {
  for (const path of ['//', '/', '/api/live', '/%', '/api/live?x=%ff']) {
    const socket = new WebSocket(`ws://${own()}${path}`, { headers: { Origin: 'https://evil.example' } });
    await new Promise((resolve) => socket.on('error', resolve));
  }
  await isAlive();
});

test('a reset at any moment of an upgrade or a request leaves the server standing', async () => {
  const texts = [
    upgrade('/', server.port),
    upgrade('/api/live', server.port),
    upgrade('/api/live', server.port, [`Sec-WebSocket-Protocol: ${LIVE_PROTOCOL}`]),
    `POST /api/probe HTTP/1.1\r\nHost: ${own()}\r\nx-clear-tap: 1\r\nContent-Length: 9999\r\n\r\n{`,
    'garbage\r\n\r\n',
  ];
  const resetAfter = (ms: number) => ({
    once: (socket: Socket) => void setTimeout(() => socket.resetAndDestroy(), ms),
  });
  for (let round = 0; round < 30; round++)
    await Promise.all(texts.map((text) => sayRaw(server.port, text, resetAfter(round % 5))));
  await isAlive();
});

test('hundreds of half-closed upgrades do not make it deaf', async () => {
  const held = Array.from({ length: 300 }, () =>
    sayRaw(server.port, upgrade('/nowhere', server.port), { afterMs: 10_000, once: (socket) => socket.end() }),
  );
  const closed = await Promise.all(held);
  expect(closed.every(({ isClosed }) => isClosed)).toBe(true);
  await isAlive();
});

test('a view that never says which stream it wants is closed', async () => {
  const socket = new WebSocket(`ws://${own()}/api/live`, [LIVE_PROTOCOL], { headers: { Origin: `http://${own()}` } });
  const code = await new Promise((resolve) => socket.on('close', resolve));
  expect(code).toBe(1008);
}, 10_000);

test.each(['http://127.0.0.1:1/', 'rtsps://127.0.0.1/', 'the weir', 'rtsp://127.0.0.1/?pwd={password}'])(
  'no view is opened of %s',
  async (url) => {
    const socket = new WebSocket(`ws://${own()}/api/live`, [LIVE_PROTOCOL], { headers: { Origin: `http://${own()}` } });
    socket.on('open', () => socket.send(JSON.stringify({ url, user: null, secret: null })));
    const said = await new Promise<string>((resolve) => socket.on('message', (data) => resolve(String(data))));
    expect(JSON.parse(said)).toMatchObject({ kind: 'ended' });
  },
);

describe('a camera that names ports that are none', () => {
  test.each(['0-0', '0-1', '65535-65536', '70000-70001'])('server_port=%s', async (ports) => {
    const hostile = await startFaultyCamera({
      script: (asked, count) =>
        asked.method === 'SETUP'
          ? {
              status: 200,
              headers: { Transport: `RTP/AVP;unicast;client_port=5000-5001;server_port=${ports}`, Session: 'a' },
            }
          : healthy(asked, count),
    });
    expect(await report(hostile.url, { transport: 'udp', timeoutMs: 400 })).toMatchObject({ cause: 'no-packets' });
    await isAlive();
    await hostile.close();
  });
});

test('an account or URL with line ends is refused, and no line of it reaches a camera', async () => {
  const before = camera.ended.length;
  expect(await report(camera.url, { user: 'viewer\r\nX-Evil: 1' })).toMatchObject({ cause: 'bad-url' });
  expect(await report(camera.url.replace('rtsp://', 'rtsp://a%0d%0aX:b@'))).toMatchObject({ cause: 'bad-url' });
  expect(camera.ended).toHaveLength(before);
});

test('a login inside the path reaches the camera and nothing else', async () => {
  const seen = await startFaultyCamera({
    script: (asked, count) => {
      const answer = healthy(asked, count);
      // The camera sends the URL back, and another login of its own.
      return asked.method === 'DESCRIBE'
        ? {
            ...answer,
            headers: { ...answer.headers, 'Content-Base': `${asked.uri}/` },
            body: `${answer.body}`.replace('a=control:track1', 'a=control:rtsp://h/t?password=ofCamera9'),
          }
        : answer;
    },
  });
  const { text } = await ask(
    '/api/probe',
    APP,
    probeRequest(`${seen.url}?user=op&password=oars%2F77`, { user: null, secret: null, timeoutMs: 300 }),
  );
  expect(seen.heard()).toMatch(/^DESCRIBE rtsp:\S+\/live\?user=op&password=oars%2F77 RTSP/m);
  expect(seen.heard()).toMatch(/^SETUP rtsp:\/\/h\/t\?password=ofCamera9 RTSP/m);
  for (const secret of ['oars', 'ofCamera9']) expect(text).not.toContain(secret);
  expect(text).toContain('/live?user={user}&password={password}');
  expect(text).toContain('password=***');
  await seen.close();
});

test('a view of a picture without end is closed with a reason, and the server does not grow by it', async () => {
  let isOver = false;
  const hostile = await startFaultyCamera({
    script: healthy,
    onPlay: (socket) => {
      let sent = 0;
      const pump = (): void => {
        if (isOver || socket.destroyed) return;
        const chunk = Array.from({ length: 40 }, () =>
          interleaved(
            0,
            rtp(sent++, 9000, Uint8Array.of(0x7c, sent === 1 ? 0x85 : 0x05, ...new Uint8Array(1400)), false),
          ),
        );
        socket.write(Buffer.concat(chunk), () => setImmediate(pump));
      };
      pump();
    },
  });
  const socket = new WebSocket(`ws://${own()}/api/live`, [LIVE_PROTOCOL], { headers: { Origin: `http://${own()}` } });
  socket.on('open', () => socket.send(JSON.stringify({ url: hostile.url, user: null, secret: null })));
  const said: string[] = [];
  socket.on('message', (data, isBinary) => isBinary || said.push(String(data)));
  await new Promise((resolve) => socket.on('close', resolve));
  isOver = true;
  expect(said.at(-1)).toMatch(/"ended".*A picture without end: after \d+ packets/);
  await hostile.close();
});

// The camera is full with the sessions of everybody who left without a word.
describe.each(['tcp', 'udp'] as const)('the farewell of a view over %s', (transport) => {
  test.each(['closed by the page', 'a server that is told to stop'])('%s', async (how) => {
    const one = await startTestCamera({ transports: [transport], answerDelayMs: 60 });
    const mine = await startServer();
    const socket = new WebSocket(`ws://${own(mine.port)}/api/live`, [LIVE_PROTOCOL], {
      headers: { Origin: `http://${own(mine.port)}` },
    });
    socket.on('open', () =>
      socket.send(JSON.stringify({ url: one.url, user: ACCOUNT.user, secret: ACCOUNT.password })),
    );
    await new Promise<void>((resolve) => socket.on('message', (_, isBinary) => isBinary && resolve()));
    expect(one.sessions()).toBe(1);
    const startedMs = performance.now();
    if (how === 'closed by the page') socket.terminate();
    else mine.process.kill('SIGTERM');
    await until(() => one.sessions() === 0);
    expect(performance.now() - startedMs).toBeLessThan(900);
    expect(one.ended).toMatchObject([{ transport, how: 'teardown' }]);
    if (how !== 'closed by the page') expect(await mine.ended).toBe(0);
    mine.process.kill('SIGKILL');
    await one.close();
  });
});

test('a probe that is left in the middle of SETUP ends the session that this opens', async () => {
  const slow = await startFaultyCamera({ script: healthy, delayMs: 120 });
  const call = request({
    host: '127.0.0.1',
    port: server.port,
    path: '/api/probe',
    method: 'POST',
    headers: { ...APP, host: own() },
  });
  call.on('error', () => {});
  call.end(JSON.stringify(probeRequest(slow.url)));
  await until(() => slow.heard().includes('SETUP'));
  call.destroy();
  await until(() => slow.open() === 0);
  expect(slow.heard()).toMatch(/^TEARDOWN \S+ RTSP\/1\.0[\s\S]*Session: abc/m);
  expect(slow.heard()).not.toMatch(/^PLAY/m);
  await slow.close();
});

async function until(isSo: () => boolean): Promise<void> {
  for (let waited = 0; waited < 3000 && !isSo(); waited += 10) await new Promise((resolve) => setTimeout(resolve, 10));
}

test('over IPv6 the camera is heard under any spelling of its address', async () => {
  const heard: string[] = [];
  const { signal } = new AbortController();
  const pair = await openUdpPair('0:0:0:0:0:0:0:1', (_, chunk) => heard.push(String(chunk)), signal);
  const peer = createSocket('udp6');
  peer.send('here', pair.ports[0], '::1');
  await until(() => heard.length > 0);
  expect(heard).toEqual(['here']);
  peer.close();
  pair.close();
});

test('a taken port is refused by name: under another the browser would show no site', async () => {
  const blocker = createServer().listen(0, '127.0.0.1');
  await new Promise((resolve) => blocker.once('listening', resolve));
  const { port } = blocker.address() as { port: number }; // a TCP server's address is an object
  const { status, stderr } = spawnSync(
    process.execPath,
    [join(__dirname, '../../dist/node/server.mjs'), '--port', String(port)],
    { encoding: 'utf8' },
  );
  expect(status).toBe(1);
  expect(stderr).toContain(`Port ${port} is taken`);
  expect(stderr).toMatch(/keeps sites by their address/);
  blocker.close();
});

test('pages asked for under localhost are sent to the one address; what was kept there can still be fetched', async () => {
  const host = `localhost:${server.port}`;
  expect(await ask('/site/x?a=1', { host })).toMatchObject({ status: 307, location: `http://${own()}/site/x?a=1` });
  expect((await ask('/?stay', { host })).status).toBe(200);
  expect((await ask('/mark.svg', { host })).status).toBe(200);
  expect((await ask('/', { host: `weir.example:${server.port}` })).status).toBe(421);
});

test('the page may call its own origin and no other', async () => {
  const { policy } = await ask('/');
  expect(policy).toContain(`connect-src 'self' ws://${own()};`);
  const frame = await ask('/draw-svg.html');
  expect(frame.policy).toMatch(/^sandbox allow-scripts; default-src 'none'/);
});

test('beyond loopback it answers under the addresses that it printed, and with its token alone', async () => {
  const open = await startServer('--host', '0.0.0.0');
  const printed = [...open.said().matchAll(/http:\/\/(\S+?)\/\?token=(\w+)/g)];
  expect(printed.length).toBeGreaterThan(0);
  const token = printed[0]?.[2] ?? '';
  for (const [, name = ''] of printed) {
    const headers = { ...APP, host: name, 'x-clear-tap-token': token };
    expect((await ask('/api/info', headers, undefined, open.port)).status).toBe(200);
  }
  const elsewhere = { ...APP, 'x-clear-tap-token': token };
  for (const host of [`0.0.0.0:${open.port}`, `weir.example:${open.port}`])
    expect((await ask('/api/info', { ...elsewhere, host }, undefined, open.port)).status).toBe(403);
  expect((await ask('/api/info', { ...APP }, undefined, open.port)).status).toBe(401);
  open.process.kill('SIGKILL');
});

test('an IPv6 host stands in brackets where a URL or a Host header names it', () => {
  expect(namesOf('fd12::A')).toEqual(['[fd12::a]']);
  expect(namesOf('127.0.0.1')).toEqual(['127.0.0.1', 'localhost']);
  expect(namesOf('::').every((name) => !name.includes('fe80'))).toBe(true);
  expect([isLoopback('localhost'), isLoopback('0.0.0.0')]).toEqual([true, false]);
});
