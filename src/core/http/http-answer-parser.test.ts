import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bytesOf, textOf } from '../base/bytes.ts';
import { HttpAnswerParser } from './http-answer-parser.ts';
import type { HttpEvent } from './http-message.ts';

const MOST = 1000;
const said = (event: HttpEvent): string =>
  event.kind === 'answer'
    ? `${event.answer.status} ${textOf(event.answer.body)}${event.answer.staysOpen ? '' : ' closes'}`
    : event.fault.code;

function parsed(bytes: Uint8Array, cuts: readonly number[] = []): readonly string[] {
  const parser = new HttpAnswerParser(MOST);
  const events: HttpEvent[] = [];
  let from = 0;
  for (const cut of [...cuts, bytes.length]) {
    events.push(...parser.push(bytes.subarray(from, cut)));
    from = cut;
  }
  return [...events, ...parser.end()].map(said);
}

const CASES = [
  { why: 'a length', text: 'HTTP/1.1 200 OK\r\nContent-Length: 5\r\n\r\nhello', events: ['200 hello'] },
  { why: 'bare line ends', text: 'HTTP/1.1 200 OK\nContent-Length: 2\n\nhi', events: ['200 hi'] },
  {
    why: 'chunks',
    text: 'HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\n\r\n3;x=y\r\nabc\r\n2\r\nde\r\n0\r\nT: 1\r\n\r\n',
    events: ['200 abcde'],
  },
  { why: 'until it hangs up', text: 'HTTP/1.0 200 OK\r\n\r\nwhole', events: ['200 whole closes'] },
  {
    why: 'two in a row',
    text: 'HTTP/1.1 200 OK\r\nContent-Length: 1\r\n\r\naHTTP/1.1 404 No\r\nContent-Length: 1\r\n\r\nb',
    events: ['200 a', '404 b'],
  },
  {
    why: 'go on, first',
    text: 'HTTP/1.1 100 Continue\r\n\r\nHTTP/1.1 200 OK\r\nContent-Length: 0\r\n\r\n',
    events: ['200 '],
  },
  { why: 'nothing to say', text: 'HTTP/1.1 204 Empty\r\n\r\n', events: ['204 '] },
  {
    why: 'it closes',
    text: 'HTTP/1.1 200 OK\r\nConnection: close\r\nContent-Length: 0\r\n\r\n',
    events: ['200  closes'],
  },
  { why: 'another protocol', text: 'SSH-2.0-thing\r\n', events: ['http.not-http'] },
  { why: 'a stream', text: 'RTSP/1.0 400 Bad Request\r\n\r\n', events: ['http.not-http'] },
  { why: 'cut in its body', text: 'HTTP/1.1 200 OK\r\nContent-Length: 9\r\n\r\nhello', events: ['http.cut'] },
  { why: 'cut in its head', text: 'HTTP/1.1 200 OK\r\nConte', events: ['http.cut'] },
  {
    why: 'too long, as it says',
    text: `HTTP/1.1 200 OK\r\nContent-Length: ${MOST + 1}\r\n\r\n`,
    events: ['http.body-too-large'],
  },
  { why: 'too long, unsaid', text: `HTTP/1.1 200 OK\r\n\r\n${'x'.repeat(MOST + 1)}`, events: ['http.body-too-large'] },
  {
    why: 'a chunk too long',
    text: 'HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\n\r\nffffff\r\n',
    events: ['http.body-too-large'],
  },
  { why: 'no number', text: 'HTTP/1.1 200 OK\r\nContent-Length: -1\r\n\r\n', events: ['http.bad-length'] },
  { why: 'no chunk', text: 'HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\n\r\nzz\r\n', events: ['http.bad-chunk'] },
  { why: 'nothing', text: '', events: [] },
];

test.each(CASES)('an answer: $why, however it is cut', ({ text, events }) => {
  const bytes = bytesOf(text);
  expect(parsed(bytes)).toEqual(events);
  for (let cut = 1; cut < bytes.length; cut++) expect(parsed(bytes, [cut])).toEqual(events);
  expect(
    parsed(
      bytes,
      Array.from({ length: Math.max(0, bytes.length - 1) }, (_, at) => at + 1),
    ),
  ).toEqual(events);
});

test('a head without end is given up', () => {
  const parser = new HttpAnswerParser(MOST);
  const events = [...parser.push(bytesOf('HTTP/1.1 200 OK\r\n'))];
  for (let line = 0; line < 2000; line++) events.push(...parser.push(bytesOf('X: y\r\n'.repeat(4))));
  expect(events.map(said)).toEqual(['http.head-too-large']);
});

test('hostile bytes, cut anywhere, give the same events as whole', () =>
  fc.assert(
    fc.property(
      fc.oneof(
        fc.uint8Array({ maxLength: 300 }),
        fc.string({ maxLength: 200 }).map((text) => bytesOf(`HTTP/1.1 200 OK\r\n${text}`)),
      ),
      fc.nat(300),
      (bytes, cut) => expect(parsed(bytes, [Math.min(cut, bytes.length)])).toEqual(parsed(bytes)),
    ),
  ));
