import { expect, test } from '@jest/globals';
import { bytesOf } from '../base/bytes.ts';
import type { HttpRequest } from '../http/http-message.ts';
import { HttpLine, type HttpLineEvent } from './http-line.ts';

const REQUEST: HttpRequest = {
  method: 'GET',
  host: '10.77.4.21',
  port: 80,
  isTls: false,
  path: '/',
  headers: [],
  body: '',
  knownFingerprint: null,
};
const OK = 'HTTP/1.1 200 OK\r\nContent-Length: 2\r\n\r\nhi';
const LAST = 'HTTP/1.1 200 OK\r\nConnection: close\r\nContent-Length: 2\r\n\r\nhi';

const said = (events: readonly HttpLineEvent[]): readonly string[] =>
  events.map((event) =>
    event.kind === 'failed' ? event.cause : event.kind === 'answer' ? String(event.answer.status) : event.kind,
  );

test.each([
  { why: 'an answer leaves it open for the next', bytes: OK, events: ['200'], carries: true },
  { why: 'a peer that closes is not asked again', bytes: LAST, events: ['200'], carries: false },
  { why: 'a second answer that nobody asked for shuts it', bytes: OK + OK, events: ['200', 'extra'], carries: false },
  { why: 'no HTTP', bytes: 'SSH-2.0-x\r\n\r\n', events: ['not-http'], carries: false },
])('$why, however its bytes are cut', ({ bytes, events, carries }) => {
  const all = bytesOf(bytes);
  for (let cut = 0; cut <= all.length; cut++) {
    const line = new HttpLine(REQUEST, 1000);
    expect(line.ask()).toBeNull();
    const told = [...line.push(all.subarray(0, cut)), ...line.push(all.subarray(cut))];
    expect([said(told), line.carries(REQUEST)]).toEqual([events, carries]);
  }
});

test('it carries what goes to the same peer, and nothing else', () => {
  const line = new HttpLine(REQUEST, 1000);
  for (const other of [{ host: '10.77.4.22' }, { port: 81 }, { isTls: true }])
    expect(line.carries({ ...REQUEST, ...other })).toBe(false);
  line.shut();
  expect(line.carries(REQUEST)).toBe(false);
});

test('closed while nobody spoke says nothing of the request; closed in the middle of an answer does', () => {
  const idle = new HttpLine(REQUEST, 1000);
  idle.ask();
  expect([said(idle.end()), idle.isUnheard]).toEqual([['closed'], true]);
  const cut = new HttpLine(REQUEST, 1000);
  cut.ask();
  cut.push(bytesOf(OK.slice(0, 20)));
  expect([said(cut.end()), cut.isUnheard]).toEqual([['cut'], false]);
});

test('what spoke before it was asked, or is shut, is not asked', () => {
  const early = new HttpLine(REQUEST, 1000);
  expect(early.push(bytesOf('SSH-2.0-x\r\n\r\n'))).toEqual([]);
  expect(early.ask()).toMatchObject({ kind: 'failed', cause: 'not-http' });
  const shut = new HttpLine(REQUEST, 1000);
  shut.end();
  expect(shut.ask()).toMatchObject({ kind: 'failed', cause: 'closed' });
});
