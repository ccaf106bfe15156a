import { expect, test } from '@jest/globals';
import { type AddressDraft, type AddressField, addressRemarks } from './address-remarks.ts';

const SOUND: AddressDraft = { host: '10.77.4.21', port: '554', path: '/live/main', user: 'viewer', secret: '' };
const AROUND = {
  networks: [
    { name: 'House', cidr: '10.77.4.0/24' },
    { name: 'Guests', cidr: 'fd12:77::/64' },
  ],
  workedPaths: ['/live/main', '/live/sub'],
};

test('a sound address has no remarks', () => expect(addressRemarks(SOUND, AROUND)).toEqual({}));

test.each<{ why: string; draft: Partial<AddressDraft>; field: AddressField; stops: boolean; says: RegExp }>([
  { why: 'no host', draft: { host: ' ' }, field: 'host', stops: true, says: /needed/ },
  { why: 'a blank after the host', draft: { host: '10.77.4.21 ' }, field: 'host', stops: false, says: /space/ },
  { why: 'the port in the host', draft: { host: '10.77.4.21:8554' }, field: 'host', stops: true, says: /8554/ },
  { why: 'the path in the host', draft: { host: '10.77.4.21/live' }, field: 'host', stops: true, says: /whole URL/ },
  { why: 'a number above 255', draft: { host: '10.77.4.300' }, field: 'host', stops: true, says: /0 to 255/ },
  { why: 'three numbers', draft: { host: '10.77.4' }, field: 'host', stops: true, says: /four numbers/ },
  { why: 'an account in the host', draft: { host: 'a@b' }, field: 'host', stops: true, says: /Expected/ },
  {
    why: 'another network',
    draft: { host: '10.78.4.21' },
    field: 'host',
    stops: false,
    says: /Outside .*House 10\.77\.4\.0\/24, Guests/,
  },
  { why: 'a public address', draft: { host: '8.8.4.4' }, field: 'host', stops: false, says: /public/ },
  { why: 'a missing port', draft: { port: '' }, field: 'port', stops: true, says: /Missing; 554/ },
  { why: 'port 0', draft: { port: '0' }, field: 'port', stops: true, says: /1 to 65535/ },
  { why: 'a word for a port', draft: { port: 'rtsp' }, field: 'port', stops: true, says: /1 to 65535/ },
  { why: 'the port of the web page', draft: { port: '80' }, field: 'port', stops: false, says: /web page/ },
  { why: 'no slash', draft: { path: 'live/main' }, field: 'path', stops: true, says: /starts with/ },
  { why: 'a blank inside the path', draft: { path: '/live main' }, field: 'path', stops: false, says: /%20/ },
  { why: 'a blank after the path', draft: { path: '/live/main ' }, field: 'path', stops: false, says: /removed/ },
  { why: 'a hash', draft: { path: '/live#1' }, field: 'path', stops: true, says: /%23/ },
  { why: 'a letter beyond ASCII', draft: { path: '/mühle' }, field: 'path', stops: true, says: /“ü” .*%C3%BC/ },
  { why: 'a sign of two halves', draft: { path: '/📷' }, field: 'path', stops: true, says: /%F0%9F%93%B7/ },
  { why: 'a lone percent sign', draft: { path: '/50%' }, field: 'path', stops: true, says: /%25/ },
  { why: 'other letter case', draft: { path: '/Live/Main' }, field: 'path', stops: false, says: /\/live\/main worked/ },
  {
    why: 'the secret in the path',
    draft: { path: '/x/hop5!', secret: 'hop5!' },
    field: 'path',
    stops: false,
    says: /\{password\} takes its place/,
  },
  {
    why: 'the secret in the path, encoded',
    draft: { path: '/x/a%26b%2Fc', secret: 'a&b/c' },
    field: 'path',
    stops: false,
    says: /\{password\} takes its place/,
  },
  { why: 'a login in the query', draft: { path: '/x?pwd=b' }, field: 'path', stops: false, says: /login/ },
  {
    why: 'the login of somebody else',
    draft: { path: '/x?user=a&pwd=b' },
    field: 'path',
    stops: true,
    says: /differs/,
  },
  { why: 'two secrets', draft: { path: '/x?pwd=b&psw=c' }, field: 'path', stops: true, says: /Two different/ },
  {
    why: 'a path beyond any',
    draft: { path: `/${'x'.repeat(2000)}` },
    field: 'path',
    stops: true,
    says: /At most 2000/,
  },
  { why: 'a host beyond any', draft: { host: 'x'.repeat(254) }, field: 'host', stops: true, says: /At most 253/ },
  { why: 'a user beyond any', draft: { user: 'x'.repeat(201) }, field: 'user', stops: true, says: /At most 200/ },
  { why: 'a line end in the user', draft: { user: 'a\r\nX: y' }, field: 'user', stops: true, says: /line break/ },
  { why: 'a sign that steers a terminal', draft: { path: '/\u001b[2J' }, field: 'path', stops: true, says: /control/ },
  { why: 'a blank after the user', draft: { user: 'viewer ' }, field: 'user', stops: false, says: /space/ },
  { why: 'a colon in the user', draft: { user: 'a:b' }, field: 'user', stops: false, says: /Basic/ },
  { why: 'an at sign in the user', draft: { user: 'a@b' }, field: 'user', stops: false, says: /Encoded/ },
  { why: 'a blank before the secret', draft: { secret: ' x' }, field: 'secret', stops: false, says: /space/ },
  { why: 'signs in the secret', draft: { secret: 'a/b' }, field: 'secret', stops: false, says: /^Encoded in the URL/ },
])('$why', ({ draft, field, stops, says }) => {
  const remarks = addressRemarks({ ...SOUND, ...draft }, AROUND);
  if (field !== 'path' || draft.secret === undefined) expect(Object.keys(remarks)).toEqual([field]);
  expect(remarks[field]).toMatchObject({ stops, text: expect.stringMatching(says) });
});

test.each([
  { why: 'a host name', draft: { host: 'weir.mill.local' } },
  { why: 'an IPv6 address of the site', draft: { host: 'fd12:77::21' } },
  { why: 'a query with encoded signs', draft: { path: '/s?ch=1&name=a%20b' } },
  { why: 'placeholders for the login', draft: { path: '/x?user={user}&pwd={password}', secret: 'abcd' } },
  { why: 'a path with another name, whatever worked', draft: { path: '/other' } },
  { why: 'a short secret that a path holds by chance', draft: { path: '/live/main', secret: 'ain' } },
])('no remark on $why', ({ draft }) => expect(addressRemarks({ ...SOUND, ...draft }, AROUND)).toEqual({}));

test('without networks noted, no address is outside them', () =>
  expect(addressRemarks({ ...SOUND, host: '192.168.7.7' }, { networks: [], workedPaths: [] })).toEqual({}));
