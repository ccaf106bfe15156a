import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bytesOf, concatBytes, textOf } from '../base/bytes.ts';
import { readTunnelAnswer, spokenUrl, tunnelGet, tunnelPost } from './http-tunnel.ts';

const HEAD = 'HTTP/1.0 200 OK\r\nContent-Type: application/x-rtsp-tunnelled\r\n\r\n';

test('both requests carry one cookie, and no login', () => {
  const ask = { path: '/live', host: '10.77.4.21', cookie: 'ab12', userAgent: 'x' };
  for (const text of [tunnelGet(ask), tunnelPost(ask)]) {
    expect(text).toMatch(/x-sessioncookie: ab12\r\n/);
    expect(text).not.toMatch(/authorization/i);
    expect(text.endsWith('\r\n\r\n')).toBe(true);
  }
});

test('what follows the head is handed on byte for byte, however much of it has come', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 80 }), fc.nat(200), (rest, cut) => {
      const all = concatBytes([bytesOf(HEAD), rest]);
      const answer = readTunnelAnswer(all.subarray(0, cut));
      if (cut < HEAD.length) expect(answer).toEqual({ kind: 'more' });
      else expect(answer).toEqual({ kind: 'open', rest: rest.slice(0, Math.max(0, cut - HEAD.length)) });
    }),
  );
});

test('no bytes make it throw, and what is no such answer never opens', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 9000 }), (bytes) => {
      const { kind } = readTunnelAnswer(bytes);
      if (!textOf(bytes).startsWith('HTTP/1.')) expect(kind).not.toBe('open');
    }),
  );
});

test.each([
  { why: 'a refusal', text: 'HTTP/1.1 404 Not Found\r\n\r\n', says: /404 Not Found/ },
  { why: 'a page', text: 'HTTP/1.1 200 OK\r\nContent-Type: text/html\r\n\r\n<html>', says: /text\/html/ },
  { why: 'no type', text: 'HTTP/1.1 200 OK\r\n\r\n', says: /without a content type/ },
  { why: 'no HTTP', text: 'RTSP/1.0 200 OK\r\n\r\n', says: /RTSP\/1\.0/ },
])('$why is told', ({ text, says }) => {
  const answer = readTunnelAnswer(bytesOf(text));
  expect(answer).toMatchObject({ kind: 'refused', note: expect.stringMatching(says) });
});

test('whatever it answers steers no terminal and turns no line around', () => {
  const steering = fc.constantFrom('\u001b[2J', '\u202e', '\u009b1m', '\r', '\u0000');
  const before = fc.constantFrom('', 'SSH-2.0 ', 'HTTP/1.1 403 ', 'HTTP/1.1 200 OK\r\nContent-Type: ');
  fc.assert(
    fc.property(before, fc.array(steering, { minLength: 1, maxLength: 4 }), (head, signs) => {
      const answer = readTunnelAnswer(bytesOf(`${head}a${signs.join('b')}cdefghij\r\n\r\n`));
      expect(answer.kind === 'refused' && /[\p{Cc}\p{Cf}]/u.test(answer.note)).toBe(false);
    }),
  );
});

test('inside a tunnel RTSP says its own scheme, with the port as it is', () => {
  const url = { scheme: 'http', user: null, password: null, host: 'h', port: 80, path: '/live', query: null } as const;
  expect(spokenUrl(url)).toEqual({ ...url, scheme: 'rtsp' });
  expect(spokenUrl({ ...url, scheme: 'https' })).toEqual({ ...url, scheme: 'rtsps' });
});
