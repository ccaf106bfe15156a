import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SDP_H264 } from '../../../tests/support/scripted-server.ts';
import { resolveControl } from './control-url.ts';
import { parseSdp } from './sdp-parser.ts';

const BASE = 'rtsp://10.77.4.21/live/';
const video = (...lines: string[]) => ['v=0', 'm=video 0 RTP/AVP 96', 'a=rtpmap:96 H264/90000', ...lines].join('\r\n');

test.each([
  { why: 'text that is no SDP line', text: 'v=0\nhello\n', line: 2, code: 'sdp.malformed-line' },
  { why: 'a media line cut short', text: 'v=0\nm=video 0\n', line: 2, code: 'sdp.malformed-line' },
  { why: 'a media line without a port', text: 'v=0\nm=video x RTP/AVP 96\n', line: 2, code: 'sdp.malformed-line' },
  {
    why: 'an rtpmap without a clock',
    text: 'v=0\nm=video 0 RTP/AVP 96\na=rtpmap:96 H264\n',
    line: 3,
    code: 'sdp.bad-value',
  },
  { why: 'a clock of 0 Hz', text: 'v=0\nm=video 0 RTP/AVP 96\na=rtpmap:96 H264/0\n', line: 3, code: 'sdp.bad-value' },
  { why: 'a frame rate in words', text: `${video('a=framerate:many')}`, line: 4, code: 'sdp.bad-value' },
])('names $why with its line', ({ text, line, code }) => {
  expect(parseSdp(text, BASE).faults).toMatchObject([{ code, detail: { line } }]);
});

test('unknown lines and sections are allowed and leave no fault', () => {
  const { session, faults } = parseSdp(`${SDP_H264}a=x-odd:1\r\nk=prompt\r\nm=text 0 RTP/AVP 98\r\n`, BASE);
  expect(faults).toEqual([]);
  expect(session.media.map(({ kind }) => kind)).toEqual(['video']);
});

test.each([
  { why: 'only decimal digits is still hex', value: '420029' },
  { why: 'an “e” is a digit, not an exponent', value: '42e01f' },
])('fmtp values are text: $why', ({ value }) => {
  const { session } = parseSdp(video(`a=fmtp:96 profile-level-id=${value}; packetization-mode=1`), BASE);
  expect(session.media[0]?.fmtp).toEqual({ 'profile-level-id': value, 'packetization-mode': '1' });
});

test.each([
  { why: 'before another', lines: ['b=AS:2048', 'b=TIAS:1900000'] },
  { why: 'behind others', lines: ['b=RR:800', 'b=AS:2048'] },
])('b=AS counts, $why', ({ lines }) => {
  expect(parseSdp(video(...lines), BASE).session.media[0]?.bandwidthKbps).toBe(2048);
});

test('Base64 in fmtp keeps its = signs', () => {
  const { session } = parseSdp(
    video('a=fmtp:96 sprop-parameter-sets=Z0LAFtoCgL/lwEQAAAMABAAAAwB4PFi6gA==,aM4PyA=='),
    BASE,
  );
  expect(session.media[0]?.sps).toEqual({ width: 640, height: 360, fps: [15, 1] });
});

test.each([
  { why: 'absent', control: null, url: BASE },
  { why: 'the star', control: '*', url: BASE },
  { why: 'relative', control: 'track1', url: `${BASE}track1` },
  { why: 'relative with a slash', control: '/track1', url: `${BASE}track1` },
  { why: 'absolute', control: 'rtsp://10.77.4.21/x', url: 'rtsp://10.77.4.21/x' },
])('control: $why', ({ control, url }) => expect(resolveControl(BASE, control)).toBe(url));

test('control: after a query, appending is what devices expect', () => {
  expect(resolveControl('rtsp://h/ch?id=1', 'track1')).toBe('rtsp://h/ch?id=1/track1');
});

test('limits: a description of a million lines is read to its limit and says so', () => {
  const { session, faults } = parseSdp('m=video 0 RTP/AVP 96\n'.repeat(5000), BASE);
  expect(session.media.length).toBeLessThanOrEqual(32);
  expect(faults.map(({ code }) => code)).toEqual(['sdp.too-long', 'sdp.too-long']);
});

test('any text at all is read without an exception', () => {
  const line = fc
    .tuple(fc.constantFrom('v=', 'm=', 'a=', 'a=rtpmap:', 'a=fmtp:', 's=', '', 'b='), fc.string({ maxLength: 40 }))
    .map(([head, rest]) => head + rest);
  fc.assert(fc.property(fc.array(line, { maxLength: 30 }), (lines) => void parseSdp(lines.join('\r\n'), BASE)));
});
