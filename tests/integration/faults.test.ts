import type { Socket } from 'node:net';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { afterAll, describe, expect, jest, test } from '@jest/globals';
import { headerOf } from '../../src/core/http/headers.ts';
import { ANSWER_FAULTS, CONNECTION_FAULTS, type Fault, STREAM_FAULTS } from '../support/faults.ts';
import { type Behaviour, type FaultyCamera, startFaultyCamera } from '../support/faulty-camera.ts';
import { runs } from '../support/runs.ts';
import { healthy } from '../support/scripted-server.ts';
import { ACCOUNT, probe } from '../support/test-camera.ts';

// Where others take the machine a camera sends late, and half a second of a stream is none: what is wrong is wrong each time.
jest.retryTimes(2, { logErrorsBeforeRetry: true });

const TIMEOUT_MS = 400;
const SAMPLE_S = 0.7;
/** Every step has its limit, and no fault here waits in more than three of them. */
const BOUND_MS = 3 * TIMEOUT_MS + SAMPLE_S * 1000 + 900;

const probeIt = (url: string, fault: Pick<Fault, 'account'> = {}) =>
  probe(url, {
    timeoutMs: TIMEOUT_MS,
    seconds: SAMPLE_S,
    transport: 'tcp',
    credentials: fault.account === false ? null : ACCOUNT,
  });

async function withCamera<T>(behaviour: Behaviour, act: (camera: FaultyCamera) => Promise<T>): Promise<T> {
  const camera = await startFaultyCamera(behaviour);
  try {
    return await act(camera);
  } finally {
    await camera.close();
  }
}

describe.each([
  ['a connection', CONNECTION_FAULTS],
  ['an answer', ANSWER_FAULTS],
  ['a stream', STREAM_FAULTS],
])('%s that goes wrong has its cause and its bound', (_, faults) => {
  test.each(faults)('$why', (fault) =>
    withCamera(fault, async (camera) => {
      const { report, tookMs } = await probeIt(camera.url, fault);
      expect(report.cause).toBe(fault.cause);
      expect(report.verdict === 'fail').toBe(fault.cause !== null);
      if (fault.because) expect(report.findings[0]?.because).toMatch(fault.because);
      expect(report.findings.map(({ rule }) => rule)).toEqual(expect.arrayContaining([...(fault.rules ?? [])]));
      if (fault.measured) expect(report.media[0]?.measured).toMatchObject(fault.measured);
      expect(tookMs).toBeLessThan(BOUND_MS);
      expect(camera.mostAuthorised()).toBeLessThanOrEqual(3);
      expect(JSON.stringify(report)).not.toContain(ACCOUNT.password);
    }),
  );
});

test.each([
  { why: 'a name that leads nowhere', url: 'rtsp://no-such-camera.invalid/x', cause: 'unresolved-host' },
  { why: 'an address without a way', url: 'rtsp://127.255.255.255/x', cause: 'unreachable' },
  { why: 'a port where nothing listens', url: 'rtsp://127.0.0.1:1/x', cause: 'refused' },
])('no connection: $why', async ({ url, cause }) => {
  const { report, tookMs } = await probeIt(url);
  expect(report).toMatchObject({ verdict: 'fail', cause });
  expect(tookMs).toBeLessThan(BOUND_MS);
});

test('a redirect within the host is followed with the account', () =>
  withCamera(
    {
      script: (request, count) =>
        request.method === 'DESCRIBE' && request.uri.endsWith('/live')
          ? { status: 302, headers: { Location: `${request.uri}/main` } }
          : healthy(request, count),
      packets: STREAM_FAULTS[1]?.packets ?? [],
    },
    async (camera) => {
      const { report } = await probeIt(camera.url);
      expect(report.cause).toBeNull();
      expect(camera.heard()).toMatch(/^DESCRIBE rtsp:\S+\/live\/main RTSP/m);
      expect(camera.dialled()).toBe(1);
    },
  ));

/** Ends the connection with each 401. */
const closesAfter401 = (socket: Socket): void => {
  const write = socket.write.bind(socket);
  socket.write = ((chunk: Uint8Array) => {
    if (!Buffer.from(chunk).includes('RTSP/1.0 401')) return write(chunk);
    socket.end(chunk);
    return true;
  }) as typeof socket.write;
};

test('one that does so for ever, each time with another nonce, is left before it locks the account', () => {
  let proofs = 0;
  return withCamera(
    {
      script: (request, count) => {
        if (request.method === 'OPTIONS') return healthy(request, count);
        if (headerOf(request, 'Authorization')) proofs += 1;
        const nonce = `n${Math.random()}`;
        return { status: 401, headers: { 'WWW-Authenticate': `Digest realm="mill", nonce="${nonce}", qop="auth"` } };
      },
      onConnect: closesAfter401,
    },
    async (camera) => {
      const { report } = await probeIt(camera.url);
      expect(['auth-failed', 'closed']).toContain(report.cause);
      expect(camera.dialled()).toBe(2);
      expect(proofs).toBeLessThanOrEqual(3);
    },
  );
});

test('a server that closes after each question for a login is connected to anew, and answered there', () => {
  let asked = 0;
  return withCamera(
    {
      script: (request, count) => {
        if (request.method === 'OPTIONS' || headerOf(request, 'Authorization')) return healthy(request, count);
        asked += 1;
        return { status: 401, headers: { 'WWW-Authenticate': 'Digest realm="mill", nonce="one", qop="auth"' } };
      },
      onConnect: closesAfter401,
      packets: STREAM_FAULTS[1]?.packets ?? [],
    },
    async (camera) => {
      const { report } = await probeIt(camera.url);
      expect(report.cause).toBeNull();
      expect([camera.dialled(), asked]).toEqual([2, 1]);
    },
  );
});

test('a stale nonce is answered anew, without a limit being spent on it', () =>
  withCamera(
    {
      script: (request, count) => {
        const sent = request.headers.find(({ name }) => name === 'Authorization')?.value ?? '';
        const stale = (nonce: string, more = '') => ({
          status: 401,
          headers: { 'WWW-Authenticate': `Digest realm="x", nonce="${nonce}", qop="auth"${more}` },
        });
        if (request.method === 'DESCRIBE' && sent === '') return stale('one');
        if (request.method === 'SETUP' && sent.includes('"one"')) return stale('two', ', stale=true');
        return healthy(request, count);
      },
      packets: STREAM_FAULTS[1]?.packets ?? [],
    },
    async (camera) => {
      const { report } = await probeIt(camera.url);
      expect(report).toMatchObject({ cause: null, auth: { scheme: 'digest-md5' } });
      expect(camera.heard()).toMatch(/^PLAY [\s\S]*?nonce="two"/m);
    },
  ));

test('redirects in circles are given up', () =>
  withCamera(
    {
      script: ({ method, uri }) =>
        method === 'DESCRIBE'
          ? { status: 302, headers: { Location: `${uri.replace(/\?.*/, '')}?again=${uri.length}` } }
          : { status: 200 },
    },
    async (camera) => {
      const { report } = await probeIt(camera.url);
      expect(report).toMatchObject({ verdict: 'fail', cause: 'redirect-loop' });
      expect(camera.dialled()).toBe(1);
    },
  ));

test.each([
  {
    why: 'a redirect to another host is never followed with the secret',
    script:
      (other: string) =>
      ({ method }: { method: string }) =>
        method === 'DESCRIBE' ? { status: 302, headers: { Location: `${other}/take` } } : { status: 200 },
    cause: 'blocked-by-policy',
  },
  {
    why: 'a control URL on another host is never dialled',
    script: (other: string) => (request: Parameters<typeof healthy>[0], count: number) => {
      const answer = healthy(request, count);
      return request.method === 'DESCRIBE'
        ? { ...answer, body: answer.body?.replace('a=control:track1', `a=control:${other}/track1`) ?? '' }
        : answer;
    },
    cause: 'no-packets',
  },
])('$why', ({ script, cause }) =>
  withCamera({}, (other) =>
    withCamera({ script: script(`rtsp://127.0.0.1:${other.port}`) }, async (camera) => {
      const { report } = await probeIt(camera.url);
      expect(report).toMatchObject({ verdict: 'fail', cause });
      expect(other.dialled()).toBe(0);
    }),
  ),
);

test('Basic is never sent where Digest is offered, and the strongest digest is taken', () =>
  withCamera(
    {
      script: (request, count) =>
        request.method === 'DESCRIBE' && !request.headers.some(({ name }) => name === 'Authorization')
          ? {
              status: 401,
              headers: {
                'WWW-Authenticate':
                  'Basic realm="x", Digest realm="x", nonce="n", Digest realm="x", nonce="n", algorithm=SHA-256, qop="auth"',
              },
            }
          : healthy(request, count),
    },
    async (camera) => {
      const { report } = await probeIt(camera.url);
      expect(report.auth).toMatchObject({ scheme: 'digest-sha-256', qop: 'auth' });
      expect(camera.heard()).not.toMatch(/Authorization: Basic/);
      expect(camera.heard()).toMatch(/algorithm=SHA-256/);
    },
  ));

test('a session is kept alive as often as its timeout asks', () =>
  withCamera(
    {
      script: (request, count) => {
        const answer = healthy(request, count);
        if (request.method === 'OPTIONS') return { status: 200, headers: { Public: 'OPTIONS, GET_PARAMETER' } };
        return request.method === 'SETUP'
          ? { ...answer, headers: { ...answer.headers, Session: 'abc;timeout=1' } }
          : answer;
      },
      packets: STREAM_FAULTS[1]?.packets ?? [],
    },
    async (camera) => {
      await probe(camera.url, { seconds: 1.8, transport: 'tcp' });
      expect(camera.heard().match(/^GET_PARAMETER /gm)?.length).toBeGreaterThanOrEqual(2);
    },
  ));

/** A thousand of them with `npm run check -- --long`. */
const MANY = runs(1000).numRuns;

describe('hundreds of probes over every fault', () => {
  const cameras: FaultyCamera[] = [];
  afterAll(async () => {
    await Promise.all(cameras.map((camera) => camera.close()));
  });

  test('leave no socket, no timer and no memory behind', async () => {
    const faults = [...CONNECTION_FAULTS, ...ANSWER_FAULTS, ...STREAM_FAULTS];
    for (const fault of faults) cameras.push(await startFaultyCamera(fault));
    const round = async (count: number): Promise<void> => {
      let next = 0;
      const work = async (): Promise<void> => {
        for (let index = next++; index < count; index = next++) {
          const fault = faults[index % faults.length];
          const camera = cameras[index % faults.length];
          if (!fault || !camera) continue;
          const { report } = await probe(camera.url, {
            timeoutMs: 200,
            seconds: 0.2,
            transport: 'tcp',
            credentials: fault.account === false ? null : ACCOUNT,
          });
          // Under this load a stream may be cut short, but a fault is never mistaken for a sound camera.
          if (fault.cause !== null && !STREAM_FAULTS.includes(fault)) expect(report.verdict).toBe('fail');
        }
      };
      await Promise.all(Array.from({ length: 40 }, work));
    };
    await round(faults.length * 2); // caches and code that is compiled on first use
    const before = await atRest();
    await round(MANY);
    const after = await atRest();
    expect(cameras.every((camera) => camera.open() === 0)).toBe(true);
    // What one kind of fault leaves behind each time is left as often as it came; the runner's own timers come and go.
    const leastLeft = Math.floor(MANY / faults.length);
    expect(after.sockets - before.sockets).toBeLessThan(leastLeft / 2);
    expect(after.timers - before.timers).toBeLessThan(leastLeft / 2);
    expect(after.heapMb - before.heapMb).toBeLessThan(8);
  }, 120_000);
});

async function atRest(): Promise<{ sockets: number; timers: number; heapMb: number }> {
  await new Promise((resolve) => setTimeout(resolve, 500));
  setFlagsFromString('--expose-gc');
  const collect: () => void = runInNewContext('gc');
  collect();
  const resources = process.getActiveResourcesInfo();
  const count = (name: RegExp): number => resources.filter((resource) => name.test(resource)).length;
  return {
    sockets: count(/^(TCPSocketWrap|UDPWRAP|UDPWrap)$/),
    timers: count(/^Timeout$/),
    heapMb: process.memoryUsage().heapUsed / 2 ** 20,
  };
}
