import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { withLoginOut } from './address-login.ts';
import { fillUrl, redactLogins, takeLoginOut } from './path-login.ts';
import { fillPath } from './path-places.ts';
import { redactText } from './redact-text.ts';
import { isSameAddress } from './same-address.ts';
import { readTarget } from './target.ts';

// Names of keys as devices of many makes write them; each value by hand.
test.each([
  {
    why: 'a query',
    path: '/live?user=op&password=oars7&ch=1',
    left: '/live?user={user}&password={password}&ch=1',
    user: 'op',
    secret: 'oars7',
  },
  { why: 'passwd', path: '/s?passwd=x1', left: '/s?passwd={password}', user: null, secret: 'x1' },
  { why: 'pwd in capitals', path: '/s?PWD=x1', left: '/s?PWD={password}', user: null, secret: 'x1' },
  { why: 'psw', path: '/s?a=1&psw=x1#', left: '/s?a=1&psw={password}#', user: null, secret: 'x1' },
  {
    why: 'loginuse and loginpas',
    path: '/v.cgi?loginuse=op&loginpas=x1',
    left: '/v.cgi?loginuse={user}&loginpas={password}',
    user: 'op',
    secret: 'x1',
  },
  {
    why: 'a word before password, however long the key',
    path: '/v?rtspServerLoginPassword=x1&adminPwd=x1',
    left: '/v?rtspServerLoginPassword={password}&adminPwd={password}',
    user: null,
    secret: 'x1',
  },
  {
    why: 'strung together with _, an _ in the secret kept',
    path: '/user=op_password=x_1_channel=1_stream=0.sdp?real',
    left: '/user={user}_password={password}_channel=1_stream=0.sdp?real',
    user: 'op',
    secret: 'x_1',
  },
  {
    why: 'an encoded secret',
    path: '/s?user=a%40b&password=a%2Fb%26c',
    left: '/s?user={user}&password={password}',
    user: 'a@b',
    secret: 'a/b&c',
  },
  {
    why: 'the same secret twice',
    path: '/s?password=x1&pwd=x1',
    left: '/s?password={password}&pwd={password}',
    user: null,
    secret: 'x1',
  },
])('a login is taken out of a path: $why', ({ path, left, user, secret }) => {
  expect(takeLoginOut(path)).toEqual({ kind: 'login', path: left, user, secret });
  expect(decodeURIComponent(fillPath(left, user ?? '', secret))).toBe(decodeURIComponent(path));
});

test.each([
  { why: 'no login', path: '/live/main?ch=1' },
  { why: 'an empty secret', path: '/user=admin&password=&channel=1' },
  { why: 'placeholders', path: '/s?user={user}&password={password}' },
  { why: 'words that only end like a key', path: '/bypass=1?compass=2' },
  { why: 'a user alone', path: '/s?user=op' },
])('nothing to take out of $why', ({ path }) => {
  expect(takeLoginOut(path)).toEqual({ kind: 'none' });
  expect(withLoginOut({ path, user: 'op', secret: '' })).toMatchObject({ ok: true, value: { path, isTaken: false } });
});

test('whatever a secret is made of, taking it out and filling it in gives a URL that means the same', () =>
  fc.assert(
    fc.property(
      fc.string({ unit: 'grapheme', minLength: 1 }),
      fc.constantFrom('password', 'pwd', 'psw'),
      (secret, key) => {
        const path = `/s?user=op&${key}=${encodeURIComponent(secret)}&ch=1`;
        const taken = takeLoginOut(path);
        if (taken.kind !== 'login') return expect(secret).toBe('{password}');
        expect(taken.secret).toBe(secret);
        const filled = fillPath(taken.path, 'op', secret);
        expect(decodeURIComponent(filled)).toBe(decodeURIComponent(path));
        // Nothing that ends a value, a query or a request line gets out of the placeholder.
        expect(filled.split('&')).toHaveLength(3);
        expect(filled).not.toMatch(/[\s#"<>\p{Cc}]/u);
        expect(redactLogins(filled)).toBe(`/s?user=op&${key}=***&ch=1`);
      },
    ),
  ));

test.each([
  {
    why: 'a query on the wire',
    text: 'DESCRIBE rtsp://h/s?pwd=x1&ch=1 RTSP/1.0',
    told: 'DESCRIBE rtsp://h/s?pwd=***&ch=1 RTSP/1.0',
  },
  {
    why: 'a control URL',
    text: 'a=control:rtsp://h/s?password=x1/track1',
    told: 'a=control:rtsp://h/s?password=***/track1',
  },
  { why: 'an account', text: 'Location: rtsp://op:x1@h/s', told: 'Location: rtsp://op:***@h/s' },
  { why: 'a URL in a URL', text: 'rtsp://h/s?to=http://op:x1@g/', told: 'rtsp://h/s?to=http://op:***@g/' },
  { why: 'a proof', text: 'Authorization: Basic b3A6eDE=', told: 'Authorization: Basic ***' },
  { why: 'nothing at all', text: 'RTSP/1.0 200 OK\r\nCSeq: 1\r\n', told: 'RTSP/1.0 200 OK\r\nCSeq: 1\r\n' },
])('what proves a login is masked in $why', ({ text, told }) => expect(redactText(text)).toBe(told));

test.each([
  {
    why: 'the account beside the URL',
    text: 'rtsp://h/s',
    user: 'op',
    secret: 'x1',
    credentials: { user: 'op', password: 'x1' },
    path: '/s',
  },
  {
    why: 'the account in the URL',
    text: 'rtsp://op:x1@h/s',
    user: null,
    secret: null,
    credentials: { user: 'op', password: 'x1' },
    path: '/s',
  },
  {
    why: 'one beside it counts before',
    text: 'rtsp://op:x1@h/s',
    user: 'up',
    secret: 'y2',
    credentials: { user: 'up', password: 'y2' },
    path: '/s',
  },
  {
    why: 'one in the path',
    text: 'rtsp://h/s?usr=op&pwd=x1',
    user: null,
    secret: null,
    credentials: { user: 'op', password: 'x1' },
    path: '/s?usr={user}&pwd={password}',
  },
  {
    why: 'the same in the path and beside it',
    text: 'rtsp://h/s?pwd=x1',
    user: 'op',
    secret: 'x1',
    credentials: { user: 'op', password: 'x1' },
    path: '/s?pwd={password}',
  },
  {
    why: 'another in the path: sent as it stands',
    text: 'rtsp://h/s?pwd=x1',
    user: 'op',
    secret: 'y2',
    credentials: { user: 'op', password: 'y2' },
    path: '/s?pwd=x1',
  },
  { why: 'none', text: 'rtsp://h/s', user: null, secret: null, credentials: null, path: '/s' },
])('whom to dial: $why', ({ text, user, secret, credentials, path }) => {
  const read = readTarget(text, user, secret);
  expect(read).toMatchObject({ ok: true, value: { credentials } });
  expect(read.ok && `${read.value.url.path}${read.value.url.query === null ? '' : `?${read.value.url.query}`}`).toBe(
    path,
  );
});

test.each([
  { why: 'a web page', text: 'http://h/', user: null, cause: 'bad-url' },
  { why: 'a placeholder and no account', text: 'rtsp://h/?pwd={password}', user: null, cause: 'auth-required' },
  { why: 'a line end in the account', text: 'rtsp://h/', user: 'op\r\nX: y', cause: 'bad-url' },
  { why: 'an encoded line end in the account', text: 'rtsp://op%0d%0aX:y@h/', user: null, cause: 'bad-url' },
  { why: 'a control sign in the path', text: 'rtsp://h/\u0000', user: null, cause: 'bad-url' },
])('not dialled: $why', ({ text, user, cause }) =>
  expect(readTarget(text, user, null)).toMatchObject({ ok: false, error: { cause } }),
);

/** The URL with a login in it, as it is dialled. */
function filled(text: string): ReturnType<typeof fillUrl> {
  const read = readTarget(text, null, null);
  if (!read.ok) throw new Error('sound');
  return fillUrl(read.value.url, read.value.credentials);
}

test('garbled where a placeholder stands, it is told up to there', () => {
  const template = {
    scheme: 'rtsp',
    user: null,
    password: null,
    host: 'h',
    port: 554,
    path: '/k/{password}/1',
    query: null,
  } as const;
  const { hide } = fillUrl(template, { user: '', password: 'oars7' });
  expect(hide('rtsp://h/k/oars7/1/track2')).toBe('rtsp://h/k/{password}/1/track2');
  expect(hide('rtsp://h/k/oarX7/1/track2')).toBe('rtsp://h/k/***');
});

test('a camera that sends the filled URL back is told with placeholders, and one that asks for the secret gets nothing', () => {
  const { url, hide } = filled('rtsp://h/s?usr=op&pwd=oars7');
  expect(url.query).toBe('usr=op&pwd=oars7');
  expect(hide('rtsp://h/s?usr=op&pwd=oars7/track1')).toBe('rtsp://h/s?usr={user}&pwd={password}/track1');
  expect(hide('rtsp://h/oars7/{password}')).toBe('rtsp://h/{password}/{password}');
});

// The login garbled, cut or encoded otherwise, and under keys that are no longer known: nothing but its place gives it away.
test.each([
  {
    why: 'as it was asked for',
    text: 'a=control:rtsp://h/s?usr=op&pwd=oars%267/track1',
    told: 'a=control:rtsp://h/s?usr={user}&pwd={password}/track1',
  },
  { why: 'a lone control', text: 'a=control:trackID=1', told: 'a=control:trackID=1' },
  { why: 'another path', text: 'Location: rtsp://h/other/2', told: 'Location: rtsp://h/other/2' },
  { why: 'another query', text: 'Location: rtsp://h/s?ch=2', told: 'Location: rtsp://h/s?ch=***' },
  {
    why: 'a key and a value garbled',
    text: 'rtsp://h/s?usr=op&p\u001bwd=oarX%267/x?y=1',
    told: 'rtsp://h/s?usr=***',
  },
  { why: 'cut, under another key', text: 'rtsp://h/t?usr=op&k=oars', told: 'rtsp://h/t?usr=***' },
  { why: 'encoded otherwise', text: 'rtsp://h?k=oars%26%37', told: 'rtsp://h?k=***' },
  { why: 'relative and garbled', text: 'a=control:s?usr=op&k=oarX', told: 'a=control:s?usr=***' },
  {
    why: 'relative, as asked for',
    text: 'a=control:s?usr=op&pwd=oars%267',
    told: 'a=control:s?usr={user}&pwd={password}',
  },
])('of a URL that a camera sends, with a login in its path: $why', ({ text, told }) => {
  expect(filled('rtsp://h/s?usr=op&pwd=oars%267').hide(text)).toBe(told);
});

test('what a camera leaves of a secret is told nowhere, however it breaks the URL around it', () => {
  const secret = 'Heron&Otter/9';
  const sent = 'rtsp://h/live?user=op&pwd=Heron%26Otter%2F9';
  const { hide } = filled(sent);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(sent.length), fc.nat(12), fc.constantFrom('', '\r\n', '//', '=', 'a.a.', '%0d')), {
        minLength: 1,
        maxLength: 4,
      }),
      (cuts) => {
        const text = cuts.reduce(
          (all, [at, gone, put]) => all.slice(0, at) + put + all.slice(at + gone),
          `Location: ${sent}/1`,
        );
        const told = hide(text);
        const parts = [secret, 'Heron%26Otter%2F9'].flatMap((form) =>
          Array.from({ length: form.length - 4 }, (_, at) => form.slice(at, at + 5)),
        );
        expect(parts.filter((part) => told.includes(part))).toEqual([]);
      },
    ),
    runs(2000),
  );
  expect(hide('Server: Herald, otters 9\r\n')).toBe('Server: Herald, otters 9\r\n');
});

test.each([
  { a: 'fe80::1%eth0', b: 'fe80:0:0:0:0:0:0:1', same: true },
  { a: '::ffff:10.77.4.1', b: '10.77.4.1', same: true },
  { a: 'FD12::A', b: 'fd12::a', same: true },
  { a: 'fd12::a', b: 'fd12::b', same: false },
  { a: '10.77.4.1', b: '10.77.4.11', same: false },
])('$a and $b are one address: $same', ({ a, b, same }) => expect(isSameAddress(a, b)).toBe(same));
