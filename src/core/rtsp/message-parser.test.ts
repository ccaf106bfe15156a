import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { expectSame } from '../../../tests/support/same.ts';
import { bytesOf, concatBytes, textOf } from '../base/bytes.ts';
import { headerOf, headersOf } from '../http/headers.ts';
import { type RtspEvent, RtspMessageParser } from './message-parser.ts';
import { writeRequest, writeResponse } from './rtsp-message.ts';
import { parseSession, parseTransport } from './transport.ts';

const frame = (channel: number, payload: Uint8Array): Uint8Array =>
  concatBytes([Uint8Array.of(0x24, channel, payload.length >> 8, payload.length & 0xff), payload]);

const SDP = 'v=0\r\ns=x\r\n';
const described = writeResponse(
  200,
  'OK',
  [
    { name: 'CSeq', value: '2' },
    { name: 'Content-Length', value: String(SDP.length) },
  ],
  SDP,
);

/** What a camera says in one breath: an answer, pictures, another answer, a request of its own. */
const CONVERSATION = concatBytes([
  bytesOf(described),
  frame(0, Uint8Array.of(0x80, 0x60, 0x0d, 0x0a)),
  frame(1, new Uint8Array(0)),
  bytesOf('\r\n'),
  bytesOf(
    writeResponse(401, 'Unauthorized', [
      { name: 'WWW-Authenticate', value: 'Basic realm="a"' },
      { name: 'www-authenticate', value: 'Digest realm="b", nonce="c"' },
    ]),
  ),
  frame(0, new Uint8Array(1400).fill(0x24)),
  bytesOf(writeRequest('OPTIONS', 'rtsp://here', [{ name: 'CSeq', value: '1' }])),
]);

function parse(chunks: readonly Uint8Array[]): RtspEvent[] {
  const parser = new RtspMessageParser();
  return [...chunks.flatMap((chunk) => [...parser.push(chunk)]), ...parser.end()];
}
const whole = parse([CONVERSATION]);

test('reads answers, frames and requests in their order', () => {
  expect(whole.map(({ kind }) => kind)).toEqual([
    'response',
    'interleaved',
    'interleaved',
    'response',
    'interleaved',
    'request',
  ]);
  const [first, , , refused] = whole;
  expect(first?.kind === 'response' && textOf(first.response.body)).toBe(SDP);
  expect(refused?.kind === 'response' && headersOf(refused.response, 'WWW-Authenticate')).toHaveLength(2);
});

test('the chunking law: cut at every byte, the events are the same', () => {
  for (let at = 0; at <= CONVERSATION.length; at++)
    expectSame(parse([CONVERSATION.subarray(0, at), CONVERSATION.subarray(at)]), whole);
});

test('the chunking law: one byte at a time', () => {
  expect(parse([...CONVERSATION].map((byte) => Uint8Array.of(byte)))).toEqual(whole);
});

test('cut off at any byte, the rest is one malformed event or nothing, never an exception', () => {
  for (let length = 0; length < CONVERSATION.length; length++) {
    const events = parse([CONVERSATION.subarray(0, length)]);
    for (const event of events.slice(0, -1)) expect(event.kind).not.toBe('malformed');
  }
});

test.each([
  { why: 'header names in any case', message: 'RTSP/1.0 200 OK\r\ncSEQ: 7\r\n\r\n', cseq: '7' },
  { why: 'LF for CRLF', message: 'RTSP/1.0 200 OK\nCSeq: 7\n\n', cseq: '7' },
  { why: 'mixed line ends', message: 'RTSP/1.0 200 OK\r\nCSeq: 7\n\r\n', cseq: '7' },
  { why: 'no blank after the colon', message: 'RTSP/1.0 200 OK\r\nCSeq:7\r\n\r\n', cseq: '7' },
  { why: 'a folded header', message: 'RTSP/1.0 200 OK\r\nX: a\r\n b\r\nCSeq: 7\r\n\r\n', cseq: '7' },
  { why: 'no reason phrase', message: 'RTSP/1.0 200\r\nCSeq: 7\r\n\r\n', cseq: '7' },
  { why: 'blank lines before', message: '\r\n\r\nRTSP/1.0 200 OK\r\nCSeq: 7\r\n\r\n', cseq: '7' },
])('takes $why', ({ message, cseq }) => {
  const [event] = parse([bytesOf(message)]);
  expect(event?.kind === 'response' && headerOf(event.response, 'CSeq')).toBe(cseq);
});

test('a line without a colon is kept, not thrown away', () => {
  const [event] = parse([bytesOf('RTSP/1.0 200 OK\r\nwhat is this\r\nCSeq: 1\r\n\r\n')]);
  expect(event?.kind === 'response' && event.response.oddLines).toEqual(['what is this']);
});

const long = (length: number) => 'x'.repeat(length);
test.each([
  { why: 'a web server', message: 'HTTP/1.1 200 OK\r\n\r\n', code: 'rtsp.not-rtsp' },
  { why: 'another greeting', message: '220 mail.example ready\r\n', code: 'rtsp.not-rtsp' },
  { why: 'TLS bytes', message: '\u0016\u0003\u0001', code: 'rtsp.not-rtsp' },
  { why: 'an endless first line', message: long(5000), code: 'rtsp.start-line-too-long' },
  {
    why: 'endless headers',
    message: `RTSP/1.0 200 OK\r\n${`A: ${long(1000)}\r\n`.repeat(70)}`,
    code: 'rtsp.headers-too-long',
  },
  {
    why: 'a negative length',
    message: 'RTSP/1.0 200 OK\r\nContent-Length: -5\r\n\r\n',
    code: 'rtsp.bad-content-length',
  },
  {
    why: 'two lengths',
    message: 'RTSP/1.0 200 OK\r\nContent-Length: 5\r\nContent-Length: 6\r\n\r\n',
    code: 'rtsp.bad-content-length',
  },
  {
    why: 'an absurd length',
    message: 'RTSP/1.0 200 OK\r\nContent-Length: 999999999999\r\n\r\n',
    code: 'rtsp.body-too-long',
  },
  { why: 'a body cut short', message: 'RTSP/1.0 200 OK\r\nContent-Length: 50\r\n\r\nabc', code: 'rtsp.truncated' },
  { why: 'a frame cut short', message: '$\u0000\u0000\u0020abc', code: 'rtsp.truncated' },
])('names $why, once, and reads nothing after it', ({ message, code }) => {
  const parser = new RtspMessageParser();
  const events = [...parser.push(bytesOf(message)), ...parser.push(bytesOf(described)), ...parser.end()];
  const named = code === 'rtsp.truncated' ? parse([bytesOf(message)]) : events;
  expect(named).toHaveLength(1);
  expect(named[0]).toMatchObject({ kind: 'malformed', code });
});

test('any bytes at all end in events, and garbage is quoted printable', () => {
  fc.assert(
    fc.property(fc.array(fc.uint8Array({ maxLength: 400 }), { maxLength: 8 }), (chunks) => {
      for (const event of parse(chunks)) if (event.kind === 'malformed') expect(event.excerpt).toMatch(/^[ -~·]*$/);
    }),
  );
});

test.each([
  { why: 'plain', value: 'RTP/AVP/TCP;unicast;interleaved=0-1', interleaved: [0, 1] },
  { why: 'only one channel named', value: 'RTP/AVP/TCP;interleaved=4', interleaved: [4, 5] },
  { why: 'none', value: 'RTP/AVP;unicast;client_port=5000-5001', interleaved: null },
])('Transport: $why', ({ value, interleaved }) => expect(parseTransport(value).interleaved).toEqual(interleaved));

test('Transport: an SSRC is base16', () => expect(parseTransport('RTP/AVP/TCP;ssrc=1F;interleaved=0-1').ssrc).toBe(31));

test.each([
  { why: 'with a timeout', value: 'abc123;timeout=30', session: { id: 'abc123', timeoutS: 30 } },
  { why: 'without', value: 'abc123', session: { id: 'abc123', timeoutS: 60 } },
  { why: 'zero means the default', value: 'abc123; timeout=0', session: { id: 'abc123', timeoutS: 60 } },
])('Session: $why', ({ value, session }) => expect(parseSession(value)).toEqual(session));

test('frames that are taken at once are the same, in the same order among messages, however the bytes are cut', () => {
  const frame = fc.record({ channel: fc.nat(255), payload: fc.uint8Array({ maxLength: 40 }) });
  const answer = fc.constant('RTSP/1.0 200 OK\r\nCSeq: 1\r\nContent-Length: 3\r\n\r\nabc');
  fc.assert(
    fc.property(
      fc.array(fc.oneof(frame, answer), { maxLength: 12 }),
      fc.array(fc.nat(60), { maxLength: 30 }),
      (parts, cuts) => {
        const bytes = Buffer.concat(
          parts.map((part) =>
            typeof part === 'string'
              ? Buffer.from(part)
              : Buffer.concat([Buffer.from([36, part.channel, 0, part.payload.length]), part.payload]),
          ),
        );
        const parser = new RtspMessageParser();
        const seen: string[] = [];
        let from = 0;
        for (const size of [...cuts, bytes.length]) {
          const chunk = new Uint8Array(bytes.subarray(from, from + size));
          from += chunk.length;
          const events = parser.push(chunk, (channel, payload) => seen.push(`${channel} ${[...payload]}`));
          seen.push(...events.map(({ kind }) => kind));
        }
        const wanted = parts.map((part) =>
          typeof part === 'string' ? 'response' : `${part.channel} ${[...part.payload]}`,
        );
        // frames of a chunk are told before its messages are: of each kind the order is kept
        const frames = (all: readonly string[]) => all.filter((one) => one !== 'response');
        expect(frames(seen)).toEqual(frames(wanted));
        expect(seen.length).toBe(wanted.length);
      },
    ),
  );
});
