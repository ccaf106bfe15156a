import { type ChildProcess, spawn } from 'node:child_process';
import { request } from 'node:http';
import { connect } from 'node:net';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import WebSocket from 'ws';
import { ACCOUNT, probeRequest, startTestCamera, type TestCamera } from '../support/test-camera.ts';

// The server as an attacker meets it: another site's page in the same browser, a name that was pointed here, a slow
// client. It runs as it is shipped, on a real port.
const SERVER = join(__dirname, '../../dist/node/server.mjs');
let camera: TestCamera;
let server: ChildProcess;
let port = 0;

async function start(): Promise<void> {
  server = spawn(process.execPath, [SERVER, '--port', '0']);
  if (!server.stdout) throw new Error('no output');
  for await (const line of createInterface(server.stdout)) {
    const match = /Clear Tap: http:\/\/127\.0\.0\.1:(\d+)\//.exec(line);
    if (!match) continue;
    port = Number(match[1]);
    return;
  }
}
beforeAll(async () => {
  camera = await startTestCamera();
  await start();
});
afterAll(async () => {
  server.kill('SIGKILL');
  await camera.close();
});

interface Answer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  readonly body: string;
}

function ask(path: string, headers: Record<string, string>, method = 'GET', body = ''): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const call = request({ host: '127.0.0.1', port, path, method, headers }, (response) => {
      let text = '';
      response.on('data', (chunk) => {
        text += chunk;
      });
      response.on('close', () => resolve({ status: response.statusCode ?? 0, headers: response.headers, body: text }));
    });
    call.on('error', reject);
    call.end(body);
  });
}

const probeBody = (seconds = 0.5) => JSON.stringify(probeRequest(camera.url, { seconds }));
const own = () => `127.0.0.1:${port}`;
const APP = { 'x-clear-tap': '1', 'content-type': 'application/json' };

test.each([
  {
    why: 'a form of another site',
    headers: () => ({
      host: own(),
      origin: 'https://evil.example',
      'content-type': 'application/x-www-form-urlencoded',
    }),
  },
  {
    why: 'a script of another site that asks first',
    headers: () => ({ ...APP, host: own(), origin: 'https://evil.example' }),
  },
  { why: 'a name that was pointed here', headers: () => ({ ...APP, host: `evil.example:${port}` }) },
  {
    why: 'a name that was pointed here, with its own origin',
    headers: () => ({ ...APP, host: `evil.example:${port}`, origin: `http://evil.example:${port}` }),
  },
  { why: 'a page in a sandbox', headers: () => ({ ...APP, host: own(), origin: 'null' }) },
  { why: 'no header of ours', headers: () => ({ host: own(), 'content-type': 'text/plain' }) },
  { why: 'the right name, another port', headers: () => ({ ...APP, host: '127.0.0.1:1' }) },
])('nothing is dialled for $why', async ({ headers }) => {
  const { status, body } = await ask('/api/probe', headers(), 'POST', probeBody());
  expect(status).toBe(403);
  expect(body).not.toContain(ACCOUNT.password);
  expect(camera.ended).toHaveLength(0);
  expect(camera.sessions()).toBe(0);
});

test('a browser that asks whether another site may is not told so', async () => {
  const asked = { host: own(), origin: 'https://evil.example', 'access-control-request-headers': 'x-clear-tap' };
  const { headers, status } = await ask('/api/probe', asked, 'OPTIONS');
  expect(status).toBe(403);
  expect(Object.keys(headers).filter((name) => name.startsWith('access-control'))).toEqual([]);
});

test.each([
  { why: 'another site', origin: () => 'https://evil.example', protocol: 'clear-tap.live.1' },
  { why: 'no word of ours', origin: () => `http://${own()}`, protocol: 'chat' },
])('a WebSocket of $why is refused', async ({ origin, protocol }) => {
  const socket = new WebSocket(`ws://${own()}/api/live`, [protocol], { headers: { Origin: origin() } });
  const outcome = await new Promise((resolve) => {
    socket.on('error', (error) => resolve(error.message));
    socket.on('open', () => resolve('opened'));
  });
  expect(outcome).toMatch(/403/);
});

test.each(['/../../../../etc/passwd', '/%2e%2e/%2e%2e/package.json', '/assets/..%2f..%2fpackage.json', '/%E0%A4%A'])(
  'no file beside the page is served: %s',
  async (path) => {
    const { status, body } = await ask(path, { host: own() });
    expect(status).toBeLessThan(500);
    expect(body).not.toMatch(/root:|"clear-tap"/);
  },
);

test('the page comes with a policy that lets nothing else in', async () => {
  const { headers } = await ask('/', { host: own() });
  expect(headers['content-security-policy']).toMatch(/default-src 'self'.*frame-ancestors 'none'/);
  expect(headers['x-content-type-options']).toBe('nosniff');
});

test.each(['/api/info', '/api/health', '/api/nothing', '/api/probe'])(
  'what %s tells is read by no other page, kept by nobody and taken for nothing else',
  async (path) => {
    for (const method of ['GET', 'POST']) {
      const { headers } = await ask(path, { ...APP, host: own() }, method, method === 'POST' ? '{}' : '');
      expect(headers).toMatchObject({
        'x-content-type-options': 'nosniff',
        'cross-origin-resource-policy': 'same-origin',
        'cache-control': 'no-store',
      });
    }
  },
);

test.each([
  { work: 'still', asked: { host: '127.0.0.1', port: 9, path: '/a\r\nX-Evil: 1', user: null, secret: null } },
  { work: 'still', asked: { host: '127.0.0.1', port: 9, path: '/a', user: 'reader\r\nX-Evil: 1', secret: 'x' } },
  { work: 'onvif', asked: { host: '127.0.0.1\r\n', port: 9, user: null, secret: null } },
])('a line end in what $work is asked for is refused in words', async ({ work, asked }) => {
  const answer = await ask(`/api/${work}`, { ...APP, host: own() }, 'POST', JSON.stringify(asked));
  expect(answer.status).toBe(400);
  expect(answer.body).toContain('Bad request');
});

test('a body nested deeper than a stack is refused in words', async () => {
  const answer = await ask('/api/probe', { ...APP, host: own() }, 'POST', '['.repeat(8000));
  expect(answer).toMatchObject({ status: 400, body: expect.stringContaining('nested deeper') });
});

test('a body without end is cut off at its limit', async () => {
  const socket = connect(port, '127.0.0.1');
  const head = `POST /api/probe HTTP/1.1\r\nHost: ${own()}\r\nx-clear-tap: 1\r\nTransfer-Encoding: chunked\r\n\r\n`;
  let sent = 0;
  const answer = await new Promise<string>((resolve) => {
    let text = '';
    socket.on('data', (chunk) => {
      text += chunk;
      if (/^HTTP\/1\.1 \d{3}/.test(text)) resolve(text);
    });
    socket.on('error', () => resolve(text || 'cut off'));
    socket.on('close', () => resolve(text || 'cut off'));
    socket.write(head);
    const pump = (): void => {
      if (socket.destroyed || sent > 64 * 2 ** 20) return;
      sent += 65_536;
      socket.write(`10000\r\n${'x'.repeat(65_536)}\r\n`, () => setImmediate(pump));
    };
    pump();
  });
  socket.destroy();
  expect(answer).toMatch(/413|cut off/);
  expect(sent).toBeLessThan(8 * 2 ** 20);
});

test('more probes at once than a site has cameras are refused, and those that run go on', async () => {
  const silent = await startTestCamera({ answerDelayMs: 500, maxSessions: 200 });
  const body = probeBody().replace(camera.url, silent.url);
  const answers = await Promise.all(
    Array.from({ length: 70 }, () => ask('/api/probe', { ...APP, host: own() }, 'POST', body)),
  );
  const refused = answers.filter(({ status }) => status === 429);
  expect(refused).toHaveLength(6);
  expect(refused[0]?.body).toMatch(/64 probes are running/);
  await silent.close();
}, 30_000);

test('told to stop in the middle of a probe, it is gone within a second and leaves no session at the camera', async () => {
  const asked = ask('/api/probe', { ...APP, host: own() }, 'POST', probeBody(30)).catch(() => null);
  while (camera.sessions() === 0) await new Promise((resolve) => setTimeout(resolve, 10));
  const startedMs = performance.now();
  server.kill('SIGTERM');
  await new Promise((resolve) => server.once('exit', resolve));
  expect(performance.now() - startedMs).toBeLessThan(1000);
  await asked;
  while (camera.sessions() > 0) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(camera.ended).toHaveLength(1);
});
