import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { messageIdOf, probeMessage, readProbeMatches, readScopes } from './discovery.ts';
import { MAX_ENVELOPE_CHARS, parseEnvelope } from './envelope.ts';

const envelope = (body: string, header = '') =>
  `<?xml version="1.0"?><SOAP-ENV:Envelope xmlns:SOAP-ENV="http://www.w3.org/2003/05/soap-envelope"><SOAP-ENV:Header>${header}</SOAP-ENV:Header><SOAP-ENV:Body>${body}</SOAP-ENV:Body></SOAP-ENV:Envelope>`;
const ENTITIES = `<!DOCTYPE x [<!ENTITY a "${'z'.repeat(50)}"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>`;

test.each([
  { why: 'a bomb of entities', text: ENTITIES + envelope('<a>&b;</a>'), code: 'onvif.doctype' },
  { why: 'a document type in small letters', text: `<!doctype html>${envelope('')}`, code: 'onvif.doctype' },
  { why: 'a page', text: '<html><body>Not found</body></html>', code: 'onvif.not-soap' },
  { why: 'an envelope without a body', text: '<Envelope><Header/></Envelope>', code: 'onvif.not-soap' },
  { why: 'nothing', text: '', code: 'onvif.not-soap' },
  { why: 'thousands of elements inside each other', text: envelope('<a>'.repeat(9000)), code: 'onvif.not-xml' },
  { why: 'a tag that is never closed', text: '<Envelope><Body', code: 'onvif.not-xml' },
  { why: 'more than a datagram', text: envelope('x'.repeat(MAX_ENVELOPE_CHARS)), code: 'onvif.too-large' },
])('an envelope is refused: $why', ({ text, code }) =>
  expect(parseEnvelope(text)).toMatchObject({ ok: false, error: { code } }),
);

test('names that every object has change no object', () => {
  for (const name of ['constructor', '__proto__', 'hasOwnProperty', 'toString']) {
    const read = parseEnvelope(envelope(`<${name}><polluted>1</polluted></${name}>`));
    if (!read.ok) expect(read.error.code).toBe('onvif.not-xml');
  }
  expect(({} as Record<string, unknown>).polluted).toBeUndefined();
});

const match = (endpoint: string) =>
  `<d:ProbeMatch><a:EndpointReference><a:Address>${endpoint}</a:Address></a:EndpointReference></d:ProbeMatch>`;

test.each([
  { why: 'one device', body: `<d:ProbeMatches>${match('urn:uuid:1')}</d:ProbeMatches>`, endpoints: ['urn:uuid:1'] },
  {
    why: 'several in one answer',
    body: `<d:ProbeMatches>${match('urn:uuid:1')}${match('urn:uuid:2')}</d:ProbeMatches>`,
    endpoints: ['urn:uuid:1', 'urn:uuid:2'],
  },
  { why: 'none that names itself', body: `<d:ProbeMatches>${match('')}</d:ProbeMatches>`, endpoints: [] },
])('devices in an answer: $why', ({ body, endpoints }) => {
  const read = readProbeMatches(envelope(body, '<a:RelatesTo>uuid:X</a:RelatesTo>'), 'x');
  expect(read.ok && read.value.map(({ endpoint }) => endpoint)).toEqual(endpoints);
});

test('an answer to somebody else is none of ours', () => {
  const body = `<d:ProbeMatches>${match('urn:uuid:1')}</d:ProbeMatches>`;
  expect(readProbeMatches(envelope(body, '<a:RelatesTo>urn:uuid:other</a:RelatesTo>'), 'mine')).toEqual({
    ok: false,
    error: 'other-message',
  });
  expect(readProbeMatches(envelope('<d:Hello/>'), 'mine')).toEqual({ ok: false, error: 'other-message' });
});

test('our own question can be read, and names its message', () =>
  expect(messageIdOf(probeMessage('abc'))).toBe('urn:uuid:abc'));

test.each([
  { text: 'onvif://www.onvif.org/name/Sluice%20rail', name: 'Sluice rail' },
  { text: 'ONVIF://WWW.ONVIF.ORG/Name/A/B', name: 'A/B' },
  { text: 'onvif://www.onvif.org/name/50%', name: '50%' },
  { text: 'http://elsewhere/name/x', name: '' },
  { text: 'onvif://www.onvif.org/name/%1b%5b2J', name: '[2J' },
])('scopes: $text', ({ text, name }) => expect(readScopes(text).name).toBe(name));

test('hostile bytes give devices or a fault, never a throw', () =>
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string({ maxLength: 2000 }),
        fc.string({ maxLength: 300 }).map((text) => envelope(`<d:ProbeMatches>${match(text)}</d:ProbeMatches>`)),
        fc
          .integer({ min: 0, max: 600 })
          .map((at) => envelope(`<d:ProbeMatches>${match('urn:uuid:1')}</d:ProbeMatches>`).slice(0, at)),
      ),
      (text) => {
        const read = readProbeMatches(text, 'x');
        for (const { endpoint, scopes } of read.ok ? read.value : []) {
          expect(endpoint.length).toBeLessThanOrEqual(200);
          expect(scopes.name.length).toBeLessThanOrEqual(80);
        }
      },
    ),
  ));
