import { expect, test } from '@jest/globals';
import { Login } from '../rtsp/login.ts';
import { authorizationFor } from './authorization.ts';
import { chooseChallenge, parseChallenges } from './challenge.ts';
import { NO_GATE } from './proof-gate.ts';

test.each([
  {
    why: 'two schemes in one header',
    header: 'Basic realm="a", Digest realm="b", nonce="n"',
    schemes: ['basic', 'digest'],
  },
  { why: 'a scheme without parameters', header: 'Negotiate, Basic realm="a"', schemes: ['negotiate', 'basic'] },
  { why: 'unquoted values', header: 'Digest realm=mill, nonce=n1', schemes: ['digest'] },
  { why: 'nothing that is a challenge', header: '"""', schemes: [] },
  { why: 'an open quote', header: 'Digest realm="mill, nonce="n', schemes: ['digest', 'n'] },
])('takes a header apart: $why', ({ header, schemes }) => {
  expect(parseChallenges(header).map(({ scheme }) => scheme)).toEqual(schemes);
});

test.each([
  {
    why: 'SHA-256 before MD5',
    headers: ['Digest realm="r", nonce="1", algorithm=MD5', 'Digest realm="r", nonce="2", algorithm=SHA-256'],
    nonce: '2',
  },
  {
    why: 'the first of two equals',
    headers: ['Digest realm="r", nonce="1"', 'Digest realm="r", nonce="2"'],
    nonce: '1',
  },
  {
    why: 'past an algorithm nobody knows',
    headers: ['Digest realm="r", nonce="1", algorithm=SKEIN', 'Digest realm="r", nonce="2"'],
    nonce: '2',
  },
  { why: 'past a challenge without a nonce', headers: ['Digest realm="r"', 'Digest realm="r", nonce="2"'], nonce: '2' },
])('chooses $why', ({ headers, nonce }) => expect(chooseChallenge(headers)).toMatchObject({ scheme: 'digest', nonce }));

test('answers nothing it cannot answer', () => {
  expect(chooseChallenge([])).toBeNull();
  expect(chooseChallenge(['Negotiate abc', 'Digest realm="r", nonce="n", qop="shouting"'])).toBeNull();
});

const request = { method: 'DESCRIBE', uri: 'rtsp://10.77.4.21/live/main', useCount: 1, cnonce: 'c0ffee' };

test('an answer without qop carries no nonce count: old firmware refuses fields it did not ask for', () => {
  const challenge = chooseChallenge(['Digest realm="mill", nonce="n1"']);
  const value = challenge && authorizationFor(challenge, { user: 'a', password: 'b' }, request);
  expect(value).toMatch(
    /^Digest username="a", realm="mill", nonce="n1", uri="rtsp:\/\/10.77.4.21\/live\/main", response="[0-9a-f]{32}"$/,
  );
});

test('an answer with qop counts the uses of its nonce and quotes what the standard quotes', () => {
  const challenge = chooseChallenge(['Digest realm="the \\"old\\" mill", nonce="n1", qop="auth", opaque="o"']);
  const value = challenge && authorizationFor(challenge, { user: 'a"b', password: 'b' }, { ...request, useCount: 11 });
  expect(value).toContain('username="a\\"b"');
  expect(value).toContain('realm="the \\"old\\" mill"');
  expect(value).toContain('qop=auth, nc=0000000b, cnonce="c0ffee"');
  expect(value).toContain('opaque="o"');
});

const credentials = { user: 'viewer', password: 'right' };
const login = (given: typeof credentials | null) =>
  new Login({ credentials: given, cnonce: () => 'cnonce', gate: NO_GATE, isEncrypted: false });
const digest = (nonce: string, more = '') => [`Digest realm="r", nonce="${nonce}"${more}`];

test.each([
  { why: 'no account given', given: null, headers: digest('1'), wasAuthorised: false, cause: 'auth-required' },
  { why: 'no challenge', given: credentials, headers: [], wasAuthorised: false, cause: 'auth-unsupported' },
  {
    why: 'an unknown scheme',
    given: credentials,
    headers: ['Hobnob realm="r"'],
    wasAuthorised: false,
    cause: 'auth-unsupported',
  },
  { why: 'a refused account', given: credentials, headers: digest('1'), wasAuthorised: true, cause: 'auth-failed' },
  {
    why: 'a refused account with a fresh nonce',
    given: credentials,
    headers: digest('2'),
    wasAuthorised: true,
    cause: 'auth-failed',
  },
])('a 401 ends the login: $why', ({ given, headers, wasAuthorised, cause }) => {
  expect(login(given).refused(headers, wasAuthorised)).toMatchObject({ cause });
});

test('a first 401 and a stale nonce are answered, but never more than twice', () => {
  const one = login(credentials);
  expect(one.refused(digest('1'), false)).toBeNull();
  expect(one.refused(digest('2', ', stale=true'), true)).toBeNull();
  expect(one.refused(digest('3', ', stale=true'), true)).toMatchObject({ cause: 'auth-failed' });
});

test('after the login held, a server that changes its nonce is answered again', () => {
  const one = login(credentials);
  one.refused(digest('1'), false);
  one.accepted();
  expect(one.refused(digest('2'), true)).toBeNull();
});

test('the nonce count starts again with a new nonce', () => {
  const one = login(credentials);
  one.readChallenges(digest('1', ', qop="auth"'));
  one.authorizationFor('OPTIONS', 'u');
  expect(one.authorizationFor('DESCRIBE', 'u')).toContain('nc=00000002');
  one.readChallenges(digest('2', ', qop="auth"'));
  expect(one.authorizationFor('SETUP', 'u')).toContain('nc=00000001');
});
