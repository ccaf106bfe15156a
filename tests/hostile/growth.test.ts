import { expect, test } from '@jest/globals';
import { redactAuthorization } from '../../src/core/auth/authorization.ts';
import { parseChallenges } from '../../src/core/auth/challenge.ts';
import { bytesFromBase64, bytesOf } from '../../src/core/base/bytes.ts';
import { clipAtBlank } from '../../src/core/base/clip.ts';
import { oneLine, visibleText } from '../../src/core/base/control-signs.ts';
import { isTooDeep } from '../../src/core/base/read-json.ts';
import { HttpAnswerParser } from '../../src/core/http/http-answer-parser.ts';
import { readListTable } from '../../src/core/imports/camera-list.ts';
import { pictureSize } from '../../src/core/imports/picture-size.ts';
import { createVeil } from '../../src/core/machine/password-veil.ts';
import { withLoginOut } from '../../src/core/net/address-login.ts';
import { addressRemarks } from '../../src/core/net/address-remarks.ts';
import { redactLogins, takeLoginOut } from '../../src/core/net/path-login.ts';
import { redactText } from '../../src/core/net/redact-text.ts';
import { createPartMask } from '../../src/core/net/secret-parts.ts';
import { tellStrayUrls } from '../../src/core/net/stray-urls.ts';
import { redactUrl } from '../../src/core/net/stream-url.ts';
import { parseStreamUrl } from '../../src/core/net/stream-url-parser.ts';
import { parseEnvelope } from '../../src/core/onvif/envelope.ts';
import { RtspMessageParser } from '../../src/core/rtsp/message-parser.ts';
import { parseSession, parseTransport } from '../../src/core/rtsp/transport.ts';
import { FirstAnswerReader } from '../../src/core/scan/http-answer.ts';
import { parseSdp } from '../../src/core/sdp/sdp-parser.ts';
import { parseSps } from '../../src/core/video/sps.ts';

// What a parser or the redaction costs may grow with its text, and not faster: eight times the text, at most about eight
// times the work. Each is given what once made one of them stall, and its like, far beyond what their callers let through.

const rtsp = (text: string): void => {
  const parser = new RtspMessageParser();
  const bytes = bytesOf(text);
  for (let at = 0; at < bytes.length; at += 4096) parser.push(bytes.subarray(at, at + 4096));
  parser.end();
};
const httpByByte = (text: string): void => {
  const parser = new HttpAnswerParser(text.length + 1);
  const bytes = bytesOf(text);
  for (let at = 0; at < bytes.length; at++) parser.push(bytes.subarray(at, at + 1));
  parser.end();
};
const firstAnswerByByte = (text: string): void => {
  const reader = new FirstAnswerReader('title');
  const bytes = bytesOf(text);
  for (let at = 0; at < bytes.length; at++) reader.push(bytes.subarray(at, at + 1));
  reader.answer();
};
const draft = { host: '', port: '554', path: '', user: '', secret: '' };
const around = { networks: [], workedPaths: [] };

const SUBJECTS: readonly {
  readonly name: string;
  readonly run: (text: string) => unknown;
  readonly around?: readonly [string, string];
  /** Of the shorter text: fewer where each costs a call, or where no more of what comes is looked at. */
  readonly chars?: number;
}[] = [
  { name: 'redaction', run: redactText },
  { name: 'URLs of a camera', run: (text) => tellStrayUrls(text, '/s?pwd={password}'), around: ['rtsp://h/', ''] },
  { name: 'parts of a secret', run: createPartMask(['aaaaaaaa', 'user=a_password'], '/s?k={password}') },
  { name: 'redaction of a header', run: redactText, around: ['Authorization: ', ''] },
  { name: 'redaction of a proof', run: redactAuthorization },
  { name: 'redaction of one URL', run: redactUrl, around: ['rtsp://', ''] },
  { name: 'redaction of logins', run: redactLogins },
  { name: 'logins in a path', run: takeLoginOut, around: ['/', '?password=a'] },
  { name: 'a secret in a path', run: (path) => withLoginOut({ path, user: 'u', secret: 'aaaa' }) },
  { name: 'clipping', run: (text) => clipAtBlank(text, text.length - 1) },
  { name: 'one line', run: oneLine },
  { name: 'text for a terminal', run: visibleText },
  { name: 'stream URL', run: parseStreamUrl, around: ['rtsp://', '/'] },
  { name: 'remarks on a path', run: (path) => addressRemarks({ ...draft, path }, around) },
  { name: 'remarks on a host', run: (host) => addressRemarks({ ...draft, host }, around) },
  { name: 'SDP, in one line', run: (text) => parseSdp(text, 'rtsp://h/'), around: ['v=0\r\na=', ''] },
  {
    name: 'SDP, rtpmap',
    run: (text) => parseSdp(text, 'rtsp://h/'),
    around: ['m=video 0 RTP/AVP 96\r\na=rtpmap:96 ', '\u2028'],
  },
  {
    name: 'SDP, fmtp',
    run: (text) => parseSdp(text, 'rtsp://h/'),
    around: ['m=video 0 RTP/AVP 96\r\na=fmtp:96 ', '\u2028'],
  },
  { name: 'RTSP, start line', run: rtsp },
  { name: 'RTSP, Content-Length', run: rtsp, around: ['RTSP/1.0 200 OK\r\nContent-Length: ', 'x\r\n\r\n'] },
  { name: 'RTSP, a header', run: rtsp, around: ['RTSP/1.0 200 OK\r\nServer: ', '\r\n\r\n'] },
  { name: 'Transport', run: parseTransport, around: ['RTP/AVP;', ''] },
  { name: 'Session', run: parseSession },
  { name: 'WWW-Authenticate', run: parseChallenges, around: ['Digest ', ''] },
  { name: 'Base64', run: bytesFromBase64 },
  { name: 'SPS', run: (text) => parseSps('h264', bytesOf(text)), around: ['g', ''] },
  { name: 'SVG', run: (text) => pictureSize(bytesOf(text)), around: ['<svg ', ''] },
  { name: 'HTTP, one byte at a time', run: httpByByte, chars: 2500 },
  { name: 'HTTP, a body by one byte', run: httpByByte, around: ['HTTP/1.1 200 OK\r\n\r\n', ''], chars: 2500 },
  {
    name: 'HTTP, chunks by one byte',
    run: httpByByte,
    around: ['HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\n\r\nffffff\r\n', ''],
    chars: 2500,
  },
  { name: 'a first answer by one byte', run: firstAnswerByByte, around: ['HTTP/1.1 200 OK\r\nS: ', ''], chars: 2000 },
  { name: 'a first page by one byte', run: firstAnswerByByte, around: ['HTTP/1.1 200 OK\r\n\r\n', ''], chars: 2000 },
  { name: 'a password in what is told', run: createVeil({ user: 'op', password: 'aaaaaaaa' }) },
  { name: 'depth of JSON', run: isTooDeep },
  {
    name: 'elements of an envelope',
    run: (text) => parseEnvelope(text, text.length + 1),
    around: ['<e:Envelope xmlns:e="x"><e:Body>', '</e:Body></e:Envelope>'],
  },
  { name: 'camera list', run: (text) => readListTable(`name,ip\n${text}`) },
];

const UNITS = [
  'a',
  'a.',
  ' ',
  '=',
  '=x',
  '\t',
  '\r',
  '\n',
  '\r\n ',
  '://',
  'a://',
  '@',
  ':',
  '/',
  '%',
  '"',
  '\\"',
  ',a="',
  ';a=',
  '_a=',
  'user=a_password=',
  'password=',
  '<svg ',
  '0',
  '0,',
  '\u2028',
  '[',
  '\u0000',
];

const CHARS = 10_000;
const TIMES = 8;
/** Linear is 8, quadratic 64; between them lies what caches and the collector make of longer texts. */
const MOST_GROWTH = 24;
/** Measurements below this tell only how busy the machine was: what is quadratic takes far longer at this length. */
const NOISE_MS = 15;
/** What seems to grow is measured again, and again. */
const ATTEMPTS = 12;
/** So often where growth is what is looked for: it costs seconds. */
const FEW_ATTEMPTS = 2;

/** Processor time in ms: what others take of the machine does not count. */
function took(run: (text: string) => unknown, text: string): number {
  const before = process.cpuUsage();
  run(text);
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}

/** How much more so many times the text costs: the least of each, of as many looks as it takes to be a linear one's. */
function growthOf(
  run: (text: string) => unknown,
  text: (chars: number) => string,
  chars = CHARS,
  attempts = ATTEMPTS,
): number {
  const [small, large] = [text(chars), text(TIMES * chars)];
  run(small); // what is run for the first time is compiled meanwhile
  let [once, manifold] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  for (let attempt = 0; attempt < attempts; attempt++) {
    const [onceMs, manifoldMs] = [took(run, small), took(run, large)];
    once = Math.min(once, onceMs);
    manifold = Math.min(manifold, manifoldMs);
    if (manifold <= NOISE_MS) return 0;
    if (manifold <= MOST_GROWTH * once) break;
  }
  return manifold / once;
}

test('what backtracks is seen to grow', () => {
  const trim = (text: string): string => text.replace(/=+$/, '');
  expect(growthOf(trim, (chars) => `${'='.repeat(chars)}x`, 1500, FEW_ATTEMPTS)).toBeGreaterThan(MOST_GROWTH);
});

test.each(SUBJECTS)(
  '$name grows no faster than its text',
  ({ run, around: [before, after] = ['', ''], chars = CHARS }) => {
    const grown = UNITS.flatMap((unit) => {
      const text = (length: number): string => before + unit.repeat(Math.ceil(length / unit.length)) + after;
      const growth = growthOf(run, text, chars);
      return growth > MOST_GROWTH ? [{ unit, growth }] : [];
    });
    expect(grown).toEqual([]);
  },
);
