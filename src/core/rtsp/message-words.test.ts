import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { explainEntry } from './message-words.ts';
import { packetAsText } from './packet-words.ts';

const wordsOf = (text: string): Readonly<Record<string, string | null>> =>
  Object.fromEntries(explainEntry({ text, direction: 'received' }).map((line) => [line.text, line.words]));

test('each line of an answer with its description says what it is', () => {
  const words = wordsOf(
    [
      'RTSP/1.0 453 Not Enough Bandwidth',
      'CSeq: 4',
      'Session: 1f2e;timeout=30',
      'Transport: RTP/AVP/TCP;unicast;interleaved=2-3',
      'WWW-Authenticate: Digest realm="mill", nonce="n1"',
      'X-Own: anything',
      '',
      'm=video 0 RTP/AVP 96',
      'a=rtpmap:96 H264/90000',
      'a=fmtp:96 packetization-mode=1;sprop-parameter-sets=Z0I=,aM4=',
    ].join('\r\n'),
  );
  expect(words).toMatchObject({
    'RTSP/1.0 453 Not Enough Bandwidth': expect.stringMatching(/session|client/),
    'CSeq: 4': 'number 4; request and answer carry the same',
    'Session: 1f2e;timeout=30': 'the session; kept for 30 s without a request',
    'Transport: RTP/AVP/TCP;unicast;interleaved=2-3': 'inside this connection: pictures on channel 2, reports on 3',
    'WWW-Authenticate: Digest realm="mill", nonce="n1"': expect.stringMatching(/proof/),
    'X-Own: anything': null,
    'm=video 0 RTP/AVP 96': 'a picture; its packets carry type 96',
    'a=rtpmap:96 H264/90000': 'type 96 is H264; its time stamps count 90000 a second',
    'a=fmtp:96 packetization-mode=1;sprop-parameter-sets=Z0I=,aM4=': expect.stringMatching(/several packets; size/),
  });
});

test.each([
  ['DESCRIBE rtsp://10.77.4.21/live RTSP/1.0', 'asks what the stream is made of'],
  ['RTSP/1.0 299 Odd', 'it agrees'],
  ['HTTP/1.1 200 OK', null],
  ['constructor: 1', null],
])('%s: %s', (line, words) => expect(wordsOf(line)[line]).toBe(words));

test('hostile: lines are never changed, whatever they are', () =>
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (text) => {
      const shown = explainEntry({ text, direction: 'received' }).map((line) => line.text);
      expect(shown).toEqual(text.split(/\r\n|\n/));
    }),
  ));

test('the head of a packet inside the connection is told byte by byte', () => {
  const packet = Uint8Array.of(0x80, 0xe0, 0x1a, 0x2b, 0, 1, 0x5f, 0x90, 0x3a, 0x7c, 0x11, 0x02, 0x65);
  const told = explainEntry({ text: packetAsText(packet, 2), direction: 'received' });
  expect(told.map(({ text }) => text)).toEqual([
    'RTP packet of 13 bytes',
    '24',
    '02',
    '00 0d',
    '80',
    'e0',
    '1a 2b',
    '00 01 5f 90',
    '3a 7c 11 02',
  ]);
  expect(told.map(({ words }) => words).join('\n')).toMatch(
    /channel 2.*\n13 bytes.*\nversion 2 of RTP\ntype 96.*marked: the last.*\nsequence number 6699.*\ntime stamp 90000.*\n.*SSRC 3a7c1102/,
  );
  expect(explainEntry({ text: packetAsText(packet, null), direction: 'received' })).toHaveLength(6);
});
