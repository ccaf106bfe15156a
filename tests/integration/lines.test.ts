import { type AddressInfo, createServer, type Socket } from 'node:net';
import { createServer as createTlsServer } from 'node:tls';
import { expect, test } from '@jest/globals';
import { CERTIFICATES } from '../../src/standins/certificates.ts';
import type { Oddities } from '../../src/standins/oddities.ts';
import { someAtOnce } from '../support/some-at-once.ts';
import { type ProbeGiven, probe, startTestCamera } from '../support/test-camera.ts';

interface Case {
  readonly why: string;
  readonly odd: Oddities;
  readonly scheme?: 'rtsps' | 'http';
  readonly given?: ProbeGiven;
  readonly sessionTimeoutS?: number;
  readonly cause?: string;
  readonly rules?: readonly string[];
  /** What must stand on the connection log. */
  readonly report?: object;
}

const SHOWN_BY_ITSELF = ['tls.self-signed', 'tls.host-name'];

const CASES: readonly Case[] = [
  {
    why: 'encrypted, signed by itself',
    odd: { line: 'self-signed' },
    scheme: 'rtsps',
    rules: SHOWN_BY_ITSELF,
    report: { tls: { protocol: 'TLSv1.3', subject: 'Ferry gate, Tarn Optics', isSelfSigned: true, isElliptic: true } },
  },
  {
    why: 'encrypted, run out years ago',
    odd: { line: 'expired' },
    scheme: 'rtsps',
    rules: ['tls.expired', ...SHOWN_BY_ITSELF],
  },
  { why: 'encrypted, spoken to plainly', odd: { line: 'self-signed' }, cause: 'closed' },
  { why: 'plain, spoken to with TLS', odd: {}, scheme: 'rtsps', cause: 'not-tls' },
  { why: 'over HTTP', odd: { line: 'tunnel' }, scheme: 'http', report: { transport: 'tcp' } },
  { why: 'over HTTP, spoken to plainly', odd: { line: 'tunnel' }, cause: 'not-rtsp' },
  { why: 'plain, asked for RTSP over HTTP', odd: {}, scheme: 'http', cause: 'not-rtsp' },
  { why: 'addresses of tracks in full', odd: { controls: 'whole', sound: 'PCMU' } },
  { why: 'addresses of tracks in place of the last part', odd: { controls: 'in-place', sound: 'PCMA' } },
  { why: 'it asks back, and ends whoever does not answer', odd: { asksBack: true }, given: { seconds: 4 } },
  {
    why: 'keep-alives by SET_PARAMETER alone',
    odd: { keepAlive: 'SET_PARAMETER' },
    sessionTimeoutS: 1,
    given: { seconds: 2.5 },
    rules: ['rtsp.session-timeout-short'],
  },
  {
    why: 'a keep-alive that is offered and refused',
    odd: { keepAlive: 'none' },
    sessionTimeoutS: 1,
    given: { seconds: 2.5 },
    rules: ['rtsp.keep-alive-refused', 'rtsp.session-timeout-short'],
  },
  {
    why: 'sound of another length than described',
    odd: {
      sound: 'AAC',
      soundLines: [
        'a=rtpmap:97 MPEG4-GENERIC/16000/1',
        'a=fmtp:97 streamtype=5;mode=AAC-hbr;sizelength=13;indexlength=3;indexdeltalength=3;config=1210',
      ],
    },
    rules: ['sound.config-lies'],
  },
  {
    why: 'sound that cannot be taken apart as described',
    odd: {
      sound: 'AAC',
      soundLines: [
        'a=rtpmap:97 MPEG4-GENERIC/16000/1',
        'a=fmtp:97 streamtype=5;mode=AAC-lbr;sizelength=6;indexlength=2;indexdeltalength=2;config=1408',
      ],
    },
    rules: ['sound.config-lies'],
  },
  {
    why: 'picture and sound that come apart',
    odd: { sound: 'PCMU', driftPpm: 2000, soundDriftPpm: -1000 },
    given: { seconds: 12 },
    rules: ['media.drift'],
  },
];

/** What is said of packets that come late: others may take the machine's cores. */
const OF_A_BUSY_MACHINE: ReadonlySet<string> = new Set([
  'rtp.jitter',
  'rtsp.answers-slow',
  'video.clock-rate',
  'video.fps-below-declared',
]);

async function run({ odd, scheme, given, sessionTimeoutS = 60 }: Case) {
  const camera = await startTestCamera({ odd, sessionTimeoutS, maxPayloadBytes: 1200 });
  const url = scheme ? camera.url.replace('rtsp:', `${scheme}:`) : camera.url;
  const { report } = await probe(url, { seconds: 1.5, ...given });
  const sessions = camera.sessions();
  await camera.close();
  return { report, sessions };
}

async function isToldAsItIs(one: Case): Promise<void> {
  const { why, cause = null, rules = [], report: more = {} } = one;
  const { report, sessions } = await run(one);
  const said = report.findings
    .map(({ rule }) => rule)
    .filter((rule) => !rule.startsWith('probe.') && !OF_A_BUSY_MACHINE.has(rule))
    .sort();
  expect({ why, ...report, rules: said }).toMatchObject({ why, cause, rules: [...rules].sort(), ...more });
  expect({ why, sessions }).toEqual({ why, sessions: 0 });
}

test('every way a line is made, and what is odd about who speaks there', async () => {
  const longestFirst = [...CASES].sort((a, b) => (b.given?.seconds ?? 0) - (a.given?.seconds ?? 0));
  // A camera here that gets no processor sends nothing in time: what is wrong is wrong by itself too.
  const unlike = await someAtOnce(longestFirst, 8, (one) =>
    isToldAsItIs(one).then(
      () => null,
      () => one,
    ),
  );
  for (const one of unlike) if (one) await isToldAsItIs(one);
}, 60_000);

async function listening(server: ReturnType<typeof createServer>): Promise<number> {
  server.on('tlsClientError', () => {});
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return (server.address() as AddressInfo).port;
}
const doors: { close(): void }[] = [];
const opened = new Set<Socket>();
async function door(server: ReturnType<typeof createServer>): Promise<number> {
  server.on('connection', (socket: Socket) => {
    socket.on('error', () => socket.destroy());
    opened.add(socket);
  });
  doors.push(server);
  return listening(server);
}

const { cert, key } = CERTIFICATES['self-signed'];
const GRANTED = 'HTTP/1.0 200 OK\r\nContent-Type: application/x-rtsp-tunnelled\r\n\r\n';

test.each([
  {
    why: 'certificates of 1 MiB',
    scheme: 'rtsps',
    make: () => createTlsServer({ key, cert: `${cert}\n`.repeat(Math.ceil(1_048_576 / cert.length)) }),
    cause: 'tls-failed',
  },
  {
    why: 'TLS that stops in the middle',
    scheme: 'rtsps',
    // the head of a record that never comes
    make: () => createServer((socket) => socket.once('data', () => socket.write(Uint8Array.of(0x16, 3, 3, 0x40, 0)))),
    cause: 'timeout',
  },
  {
    why: 'TLS that hangs up in the middle',
    scheme: 'rtsps',
    make: () => createServer((socket) => socket.once('data', () => socket.end(Uint8Array.of(0x16, 3, 3, 0x40, 0)))),
    cause: 'tls-failed',
  },
  {
    why: 'TLS that alerts',
    scheme: 'rtsps',
    make: () => createServer((socket) => socket.once('data', () => socket.end(Uint8Array.of(0x15, 3, 3, 0, 2, 2, 40)))),
    cause: 'tls-failed',
  },
  {
    why: 'a tunnel that closes the half that speaks',
    scheme: 'http',
    make: () =>
      createServer((socket) =>
        socket.once('data', (chunk) => (String(chunk).startsWith('GET') ? socket.write(GRANTED) : socket.end())),
      ),
    cause: 'closed',
  },
  {
    why: 'a tunnel that closes the half that is heard',
    scheme: 'http',
    make: () => createServer((socket) => socket.once('data', () => socket.end(GRANTED))),
    cause: 'closed',
  },
  {
    why: 'a tunnel whose answer has no end',
    scheme: 'http',
    make: () =>
      createServer((socket) =>
        socket.once('data', () => socket.write(`HTTP/1.0 200 OK\r\n${'x: y\r\n'.repeat(4000)}`)),
      ),
    cause: 'not-rtsp',
  },
  {
    why: 'a tunnel that grants and says nothing',
    scheme: 'http',
    make: () =>
      createServer((socket) =>
        socket.once('data', (chunk) => void (String(chunk).startsWith('GET') && socket.write(GRANTED))),
      ),
    cause: 'timeout',
  },
])('bad lines end in time, with a cause: $why', async ({ scheme, make, cause }) => {
  const port = await door(make());
  const { report, tookMs } = await probe(`${scheme}://127.0.0.1:${port}/live`, { timeoutMs: 1000 });
  expect(report).toMatchObject({ verdict: 'fail', cause });
  expect(tookMs).toBeLessThan(3500);
  for (const socket of opened) socket.destroy();
  for (const one of doors.splice(0)) one.close();
});

test('a simulated camera whose port was taken while it was closed opens another', async () => {
  const camera = await startTestCamera();
  const standIn = camera.standIn;
  const before = standIn.port;
  await standIn.setListening(false);
  const squatter = createServer();
  await new Promise<void>((resolve) => squatter.listen(before, '127.0.0.1', resolve));
  await standIn.setListening(true);
  expect(standIn.port).not.toBe(before);
  const { report } = await probe(`rtsp://127.0.0.1:${standIn.port}/live`, { media: false });
  expect(report.cause).toBeNull();
  squatter.close();
  await standIn.close();
});
