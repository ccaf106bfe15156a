import type { ProbeCause } from '../../src/core/rtsp/exchange-types.ts';
import { type FakePacket, fakePackets, rtp } from './fake-media.ts';
import type { Behaviour } from './faulty-camera.ts';
import { type Answer, healthy, type Script, SDP_H264, sdp } from './scripted-server.ts';

/** What a fault must look like from outside: its cause, what is said of it, and rules that must speak. */
export interface Fault extends Behaviour {
  readonly why: string;
  readonly cause: ProbeCause | null;
  readonly because?: RegExp;
  readonly rules?: readonly string[];
  readonly measured?: Readonly<Record<string, unknown>>;
  /** With an account unless it says no. */
  readonly account?: false;
}

/** Healthy but for the method named. */
const but =
  (method: string, answer: Answer | ((count: number) => Answer)): Script =>
  (request, count) =>
    request.method === method ? (typeof answer === 'function' ? answer(count) : answer) : healthy(request, count);
const status = (method: string, code: number, headers: Record<string, string> = {}): Script =>
  but(method, { status: code, headers });
const challenge = (text: string): Script => but('DESCRIBE', { status: 401, headers: { 'WWW-Authenticate': text } });
const raw = (text: string): Script => but('DESCRIBE', { status: 200, raw: text });
const greeting = (text: string | Uint8Array): Behaviour => ({ onConnect: (socket) => void socket.write(text) });
const longHead = `RTSP/1.0 200 OK\r\nCSeq: 2\r\n${'X-Filler: 0123456789012345678901234567890123456789\r\n'.repeat(2000)}`;
const withTransport = (transport: string): Script =>
  but('SETUP', { status: 200, headers: { Transport: transport, Session: 'a' } });
const withLength = (length: string): Script =>
  raw(`RTSP/1.0 200 OK\r\nCSeq: 2\r\nContent-Type: application/sdp\r\nContent-Length: ${length}\r\n\r\n${SDP_H264}`);
/** `count` authorised requests are refused, each with a fresh nonce. */
const refusesForEver: Script = but('DESCRIBE', (count) => ({
  status: 401,
  headers: { 'WWW-Authenticate': `Digest realm="x", nonce="n${count}", stale=true, qop="auth"` },
}));

/** Connections that never become a conversation. */
export const CONNECTION_FAULTS: readonly Fault[] = [
  { why: 'closed after accept', cause: 'closed', onConnect: (socket) => void socket.end() },
  {
    why: 'reset at the first word',
    cause: 'closed',
    onConnect: (socket) => void socket.once('data', () => socket.resetAndDestroy()),
  },
  { why: 'silence', cause: 'timeout', because: /OPTIONS/ },
  {
    why: 'one byte at a time, slowly',
    cause: 'timeout',
    onConnect: (socket) => {
      let sent = 0;
      const timer = setInterval(() => {
        if (socket.writable) socket.write('RTSP/1.0 200 OK\r\nCSeq: 1\r\n\r\n'.charAt(sent++ % 28));
      }, 100);
      socket.on('close', () => clearInterval(timer));
    },
  },
  {
    why: 'a web server',
    cause: 'not-rtsp',
    because: /HTTP/,
    script: () => ({ status: 200, raw: 'HTTP/1.1 400 Bad Request\r\nContent-Type: text/html\r\n\r\n<html>' }),
  },
  { why: 'a shell’s greeting', cause: 'not-rtsp', because: /SSH/, ...greeting('SSH-2.0-millwheel\r\n') },
  { why: 'a mail server’s greeting', cause: 'not-rtsp', ...greeting('220 mail.mill ESMTP\r\n') },
  {
    why: 'garbage',
    cause: 'not-rtsp',
    ...greeting(Uint8Array.from({ length: 4096 }, (_, i) => (i * 73 + 0x81) & 0xff)),
  },
  { why: 'a line without end', cause: 'not-rtsp', ...greeting(`RTSP/1.0 200 ${'x'.repeat(300_000)}`) },
];

/** Answers that break the protocol. */
export const ANSWER_FAULTS: readonly Fault[] = [
  { why: 'headers without end', cause: 'protocol-error', because: /64 KiB/, script: raw(longHead) },
  { why: 'a Content-Length above the body', cause: 'timeout', script: withLength('99999') },
  { why: 'a Content-Length below the body', cause: 'no-video', script: withLength('40') },
  { why: 'a negative Content-Length', cause: 'protocol-error', because: /no number/, script: withLength('-5') },
  { why: 'an absurd Content-Length', cause: 'protocol-error', because: /1 MiB/, script: withLength('999999999999') },
  { why: 'an empty description', cause: 'no-video', because: /empty/, script: but('DESCRIBE', sdp('')) },
  {
    why: 'HTML for a description',
    cause: 'protocol-error',
    because: /text\/html/,
    script: but('DESCRIBE', sdp('<html><body>Log in</body></html>', { 'Content-Type': 'text/html' })),
  },
  {
    why: 'a description of 1 MiB',
    cause: 'no-video',
    script: but('DESCRIBE', sdp(`v=0\r\n${'a=x-filler:0123456789abcdef\r\n'.repeat(36_000)}`)),
  },
  {
    why: '401 without a challenge',
    cause: 'auth-unsupported',
    because: /without a challenge/,
    script: status('DESCRIBE', 401),
  },
  {
    why: '401 with a scheme of its own',
    cause: 'auth-unsupported',
    because: /Secret9/,
    script: challenge('Secret9 key="x"'),
  },
  { why: '401 for ever', cause: 'auth-failed', because: /refused account/, script: refusesForEver },
  {
    why: '401 and no account',
    cause: 'auth-required',
    account: false,
    script: challenge('Digest realm="x", nonce="n"'),
  },
  { why: '403', cause: 'forbidden', because: /403/, script: status('DESCRIBE', 403) },
  { why: '404', cause: 'not-found', because: /404/, script: status('DESCRIBE', 404) },
  { why: '453', cause: 'too-many-sessions', because: /453/, script: status('SETUP', 453) },
  { why: '454 to PLAY', cause: 'session-lost', because: /454/, script: status('PLAY', 454) },
  { why: '461', cause: 'transport-refused', because: /461/, script: status('SETUP', 461) },
  { why: '500', cause: 'server-error', because: /500/, script: status('DESCRIBE', 500) },
  { why: '503', cause: 'server-error', because: /503/, script: status('DESCRIBE', 503) },
  {
    why: 'UDP granted where TCP was asked for',
    cause: 'transport-refused',
    because: /client_port/,
    script: but('SETUP', { status: 200, headers: { Transport: 'RTP/AVP;unicast;client_port=0-1', Session: 'a' } }),
  },
  {
    why: 'a header that is trimmed for ever',
    cause: 'protocol-error',
    because: /no number/,
    script: raw(`RTSP/1.0 200 OK\r\nCSeq: 2\r\nContent-Length: ${' '.repeat(60_000)}x\r\n\r\n`),
  },
  {
    why: 'a Server header of 60,000 signs',
    cause: 'no-packets',
    script: (request, count) => {
      const answer = healthy(request, count);
      return { ...answer, headers: { ...answer.headers, Server: 'a.'.repeat(30_000) } };
    },
  },
  {
    why: 'a description in one line of 250,000 signs',
    cause: 'no-video',
    script: but('DESCRIBE', sdp(`v=0\r\n${'a.'.repeat(125_000)}`)),
  },
  {
    why: 'numbers beyond any',
    cause: 'no-packets',
    script: but(
      'DESCRIBE',
      sdp(
        SDP_H264.replace('H264/90000', `H264/1${'0'.repeat(300)}`).replace(
          'framerate:15',
          `framerate:1${'0'.repeat(300)}`,
        ),
      ),
    ),
  },
  {
    why: 'channels beyond any',
    cause: 'no-packets',
    script: withTransport('RTP/AVP/TCP;interleaved=999-1000;server_port=0-0;client_port=0-0'),
  },
  { why: 'PLAY without packets', cause: 'no-packets', because: /no packet came/, script: healthy },
];

const lossless = fakePackets({ fps: 15, groupFrames: 5, frames: 60, keyBytes: 6000, betweenBytes: 900 });
const bare = (more: Partial<Parameters<typeof fakePackets>[0]>): FakePacket[] =>
  fakePackets({ fps: 15, groupFrames: 5, frames: 60, keyBytes: 6000, betweenBytes: 900, ...more });
const dropping = (isLost: (index: number) => boolean): FakePacket[] => lossless.filter((_, index) => !isLost(index));
/** Rewrites sequence, time stamp or source from some packet on. */
const rewritten = (
  from: number,
  change: (seq: number, stamp: number) => { seq?: number; stamp?: number; ssrc?: number },
): FakePacket[] =>
  lossless.map(({ bytes, frame }, index) => {
    if (index < from) return { bytes, frame };
    const view = new DataView(bytes.buffer);
    const [seq, stamp] = [view.getUint16(2), view.getUint32(4)];
    const next = change(seq, stamp);
    const isMarked = (view.getUint8(1) & 0x80) !== 0;
    return { bytes: rtp(next.seq ?? seq, next.stamp ?? stamp, bytes.slice(12), isMarked, next.ssrc), frame };
  });
const nalTypeOf = ({ bytes }: FakePacket): number => (bytes[12] ?? 0) & 0x1f;
const withoutSprop = SDP_H264.replace(/;sprop-parameter-sets=\S+/, '');
/** 1,280×720 in the description, 640×360 in the stream. */
const otherSprop = SDP_H264.replace(
  /sprop-parameter-sets=\S+/,
  'sprop-parameter-sets=Z0LAH9oBQBboQAAAAwBAAAAPI8YMqA==,aM4PyA==',
);

/** Streams that start, and then go wrong. */
export const STREAM_FAULTS: readonly Fault[] = [
  {
    why: 'packets that stop',
    cause: 'no-packets',
    because: /stopped/,
    script: healthy,
    packets: lossless.filter(({ frame }) => frame < 5),
  },
  {
    why: 'a teardown without answer',
    cause: null,
    script: but('TEARDOWN', { status: 200, raw: '' }),
    packets: lossless,
  },
  {
    why: 'scattered loss',
    cause: null,
    rules: ['rtp.loss'],
    script: healthy,
    packets: dropping((index) => index % 6 === 5),
  },
  {
    why: 'a burst of loss',
    cause: null,
    rules: ['rtp.loss'],
    measured: { lost: 4 },
    script: healthy,
    packets: dropping((index) => index >= 12 && index < 16),
  },
  {
    why: 'sequence numbers that wrap',
    cause: null,
    measured: { lost: 0, sourceChanges: 0 },
    script: healthy,
    packets: bare({ firstSeq: 65_530 }),
  },
  {
    why: 'packets out of order',
    cause: null,
    measured: { lost: 0 },
    script: healthy,
    packets: lossless.map((packet, index) =>
      index % 10 === 3 ? (lossless[index + 1] ?? packet) : index % 10 === 4 ? (lossless[index - 1] ?? packet) : packet,
    ),
  },
  {
    why: 'packets that come twice',
    cause: null,
    rules: ['rtp.duplicates'],
    measured: { lost: 0 },
    script: healthy,
    packets: lossless.flatMap((packet, index) => (index % 10 === 5 ? [packet, packet] : [packet])),
  },
  {
    why: 'another source in the middle',
    cause: null,
    rules: ['rtp.source-changed'],
    measured: { sourceChanges: 1 },
    script: healthy,
    packets: rewritten(12, (seq) => ({ ssrc: 0xbeef, seq: seq + 9000 })),
  },
  {
    why: 'time stamps that jump',
    cause: null,
    rules: ['rtp.timestamps-jump'],
    measured: { timestampJumps: 1, lost: 0 },
    script: healthy,
    packets: rewritten(12, (_, stamp) => ({ stamp: stamp + 90_000 * 3600 })),
  },
  {
    why: 'no key frame',
    cause: 'no-video',
    because: /no key frame/,
    script: healthy,
    packets: lossless.filter((packet) => nalTypeOf(packet) === 1),
  },
  {
    why: 'parameter sets only in band',
    cause: null,
    rules: ['video.parameters-in-band-only'],
    measured: { width: 640 },
    script: but('DESCRIBE', sdp(withoutSprop)),
    packets: lossless,
  },
  {
    why: 'parameter sets in the description only',
    cause: null,
    rules: ['video.parameters-declared-only'],
    script: healthy,
    packets: lossless.filter((packet) => nalTypeOf(packet) !== 24),
  },
  {
    why: 'no parameter sets at all',
    cause: null,
    rules: ['video.parameters-missing'],
    script: but('DESCRIBE', sdp(withoutSprop)),
    packets: lossless.filter((packet) => nalTypeOf(packet) !== 24),
  },
  {
    why: 'parameter sets that contradict each other: what arrives wins',
    cause: null,
    rules: ['video.parameters-differ'],
    measured: { width: 640, height: 360 },
    script: but('DESCRIBE', sdp(otherSprop)),
    packets: lossless,
  },
  {
    why: 'a picture without end',
    cause: 'protocol-error',
    because: /A picture without end/,
    script: healthy,
    packets: [
      ...lossless.filter(({ frame }) => frame < 2),
      ...Array.from({ length: 150 }, (_, at) => {
        const part = new Uint8Array(60_000);
        part.set([0x7c, at === 0 ? 0x85 : 0x05]);
        return { frame: 2, bytes: rtp(at + 20, 99_000, part, false) };
      }),
    ],
  },
  { why: 'GET_PARAMETER refused', cause: null, script: but('GET_PARAMETER', { status: 501 }), packets: lossless },
];
