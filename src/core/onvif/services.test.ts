import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { HEAD, READING } from '../../../tests/support/onvif-readings.ts';
import { runs } from '../../../tests/support/runs.ts';
import * as answers from '../../standins/onvif/onvif-answers.ts';
import { SLUICE_RAIL } from '../../standins/personality.ts';
import { childOf, parseEnvelope, type XmlNode } from './envelope.ts';
import { type Operation, writeEnvelope } from './operation.ts';
import { durationOf, momentOf, writeDuration } from './read-values.ts';
import { checkReading } from './reading-check.ts';
import { referenceParametersIn } from './reference-parameters.ts';
import * as device from './services/device.ts';
import * as events from './services/events.ts';
import * as media from './services/media.ts';
import * as ptz from './services/ptz.ts';
import { GET_RECORDING_SUMMARY } from './services/recording.ts';
import { soapFaultIn } from './soap-fault.ts';
import { usernameToken } from './ws-security.ts';

type AnyOperation = Operation<never, unknown>;
const OPERATIONS = [device, events, media, ptz, { GET_RECORDING_SUMMARY }]
  .flatMap((service) => Object.values(service))
  .filter(
    (value): value is AnyOperation =>
      typeof value === 'object' && value !== null && 'read' in value && 'write' in value,
  );

const [main] = SLUICE_RAIL.streams;
const head = SLUICE_RAIL.page?.onvif?.head;
if (!main || !head) throw new Error('a dome with a stream');
const shown = [{ token: 'profile-1', source: 'source-1', stream: main, head }];
const view = { pan: 0.25, tilt: -0.5, zoom: 0.5 };

/** What a sound device answers, by the operation that asks. */
const SOUND: Readonly<Record<string, string>> = {
  GetSystemDateAndTime: answers.timeAnswer(Date.UTC(2026, 10, 27, 12, 30, 5), 'NTP'),
  GetServices: answers.servicesAnswer(
    [{ namespace: 'http://www.onvif.org/ver20/ptz/wsdl', path: '/p', version: [2, 4], capability: 'PTZ' }],
    'http://10.77.4.21',
  ),
  GetProfiles: answers.profilesAnswer(shown),
  GetStatus: answers.statusAnswer(view, true, 0),
  GetNodes: answers.nodesAnswer(head),
  GetPresets: answers.presetsAnswer([{ token: '7', name: 'Gate & rail', panDeg: 0, tiltDeg: 0, zoom: 1 }], head),
  GetEventProperties: answers.eventPropertiesAnswer(),
  CreatePullPointSubscription: answers.pullPointAnswer('http://10.77.4.21/pull/1', '7', 0, 60_000),
  PullMessages: answers.pulledAnswer(
    [{ topic: answers.MOTION_TOPIC, change: 'Changed', item: { name: 'IsMotion', value: 'true' }, unixMs: 0 }],
    's',
    0,
    1,
  ),
};

function bodyOf(name: string): XmlNode {
  const read = parseEnvelope(answers.envelopeOf(SOUND[name] ?? ''));
  if (!read.ok) throw new Error(read.error.message);
  return childOf(read.value.body, `${name}Response`) ?? {};
}

test.each([
  { of: device.GET_TIME, is: { unixMs: Date.UTC(2026, 10, 27, 12, 30, 5), kept: 'ntp', zone: 'UTC0' } },
  { of: device.GET_SERVICES, is: [{ name: 'ptz', url: 'http://10.77.4.21/p', version: '2.04' }] },
  {
    of: media.GET_PROFILES,
    is: [
      {
        token: 'profile-1',
        name: 'main',
        codec: 'H264',
        width: 960,
        height: 540,
        fps: 12,
        gopFrames: 24,
        hasPtz: true,
      },
    ],
  },
  { of: ptz.GET_STATUS, is: { position: view, isMoving: true } },
  { of: ptz.GET_NODES, is: [{ token: 'node-1', mostPresets: 16, absolute: { x: { min: -1, max: 1 } } }] },
  { of: ptz.GET_PRESETS, is: [{ token: '7', name: 'Gate & rail' }] },
  { of: events.GET_EVENT_PROPERTIES, is: ['RuleEngine/CellMotionDetector/Motion', 'RuleEngine/LineDetector/Crossed'] },
  { of: events.CREATE_PULL_POINT, is: { url: 'http://10.77.4.21/pull/1', nowUnixMs: 0, endsUnixMs: 60_000 } },
  {
    of: events.PULL_MESSAGES,
    is: { events: [{ topic: 'RuleEngine/CellMotionDetector/Motion', kind: 'motion', change: 'changed', isOn: true }] },
  },
])('$of.name is read', ({ of, is }) =>
  expect(of.read(bodyOf(of.name), answers.envelopeOf(SOUND[of.name] ?? ''))).toMatchObject(is),
);

/** Trees as hostile as XML can carry: names of answers and of objects, texts without end. */
const NAMES = [
  'Profiles',
  'PTZNode',
  'Service',
  'UTCDateTime',
  'Date',
  'Year',
  'Preset',
  'NotificationMessage',
  'Message',
  'TopicSet',
  '@token',
  '@x',
  '#text',
  'constructor',
  '__proto__',
  'toString',
  'XAddr',
  'Uri',
  'SupportedPTZSpaces',
  'XRange',
  'Min',
];
const { tree } = fc.letrec<{ tree: unknown }>((tie) => ({
  tree: fc.oneof(
    { maxDepth: 5 },
    fc.constantFrom(
      '',
      '1e999',
      '-1',
      '2026-11-27T12:00:00Z',
      'true',
      'x'.repeat(5000),
      'http://[',
      'PT9999999999S',
      '\u0000\u202e',
    ),
    fc.string(),
    fc.dictionary(fc.constantFrom(...NAMES), tie('tree'), { maxKeys: 5 }),
    fc.array(tie('tree'), { maxLength: 4 }),
  ),
}));

test.each(OPERATIONS.map((of) => ({ of, name: of.name })))(
  'hostile: $name reads whatever came, and throws nothing',
  ({ of }) =>
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...NAMES), tree, { maxKeys: 6 }), (node) => {
        const read = JSON.stringify(of.read(node as XmlNode, '')) ?? '';
        expect(read.length).toBeLessThan(400_000);
      }),
      runs(60),
    ),
);

const subscribed = (parameters: string): string =>
  `<s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope" xmlns:w="http://www.w3.org/2005/08/addressing" xmlns:dn="urn:o'wn"><s:Body>` +
  `<AnswerOfAnyName><SubscriptionReference><w:ReferenceParameters>${parameters}</w:ReferenceParameters></SubscriptionReference></AnswerOfAnyName></s:Body></s:Envelope>`;
/** The header of the next request to a subscription, as a device would read it. */
function echoed(parameters: string) {
  const echo = referenceParametersIn(subscribed(parameters));
  const text = writeEnvelope({ operation: events.RENEW, inner: '', to: '', security: '', echo });
  const read = parseEnvelope(text);
  return { text, header: read.ok ? read.value.header : null };
}

test.each([
  { why: 'a number', parameters: '<dn:Id>7</dn:Id>', is: { Id: { '#text': '7' } } },
  { why: 'signs', parameters: '<dn:Id>a &amp; b &#60;</dn:Id>', is: { Id: { '#text': 'a &amp; b &#60;' } } },
  { why: 'raw text', parameters: '<dn:Id><![CDATA[</x>]]></dn:Id>', is: { Id: { '#text': '</x>' } } },
  {
    why: 'a tree',
    parameters: `<dn:A k='"1"'><B/></dn:A><C>2</C>`,
    is: { A: { '@k': '&quot;1&quot;', B: '' }, C: {} },
  },
])('a subscription that is known by $why is asked with just that in the header', ({ parameters, is }) => {
  const { header, text } = echoed(parameters);
  expect(header).toMatchObject(is);
  expect(text).toContain(`xmlns:dn="urn:o&apos;wn"`);
  expect(text).toContain('wsar:IsReferenceParameter="true"');
});

test('hostile: what a subscription is known by stays small and within its own element, whatever it is', () =>
  fc.assert(
    fc.property(fc.stringMatching(/^[<>/a:="'&;![\]-]{0,60}$/), fc.nat(3000), (bite, many) => {
      for (const parameters of [
        bite,
        `<a>${bite}</a>`,
        `<a ${bite}/>`,
        '<a>'.repeat(many),
        `<a>${'x'.repeat(many)}</a>`,
      ]) {
        const echo = referenceParametersIn(subscribed(parameters));
        expect(echo.length).toBeLessThanOrEqual(2048);
        if (parseEnvelope(subscribed(parameters)).ok) expect(echoed(parameters).header).not.toBeNull();
      }
    }),
    runs(200),
  ));

test('hostile: a sound answer that is cut or bitten anywhere gives a reading or a fault', () =>
  fc.assert(
    fc.property(fc.constantFrom(...Object.keys(SOUND)), fc.nat(4000), fc.string({ maxLength: 4 }), (name, at, bite) => {
      const text = answers.envelopeOf(SOUND[name] ?? '');
      for (const hurt of [text.slice(0, at), text.slice(0, at) + bite + text.slice(at + bite.length)]) {
        const read = parseEnvelope(hurt);
        if (!read.ok) continue;
        soapFaultIn(read.value);
        for (const of of OPERATIONS) of.read(childOf(read.value.body, `${of.name}Response`) ?? {}, hurt);
      }
    }),
    runs(150),
  ));

test.each([
  {
    why: 'SOAP 1.2',
    body: '<Fault><Code><Value>s:Sender</Value><Subcode><Value>ter:NotAuthorized</Value></Subcode></Code><Reason><Text>no</Text></Reason></Fault>',
    kind: 'not-authorized',
  },
  {
    why: 'subcodes in each other',
    body: '<Fault><Code><Value>s:Receiver</Value><Subcode><Value>ter:ActionNotSupported</Value><Subcode><Value>ter:PTZNotSupported</Value></Subcode></Subcode></Code></Fault>',
    kind: 'not-supported',
  },
  {
    why: 'SOAP 1.1',
    body: '<Fault><faultcode>s:Client.NotAuthorized</faultcode><faultstring>Sender not authorized</faultstring></Fault>',
    kind: 'not-authorized',
  },
  {
    why: 'words alone',
    body: '<Fault><faultstring>Authentication failed</faultstring></Fault>',
    kind: 'not-authorized',
  },
  {
    why: 'an argument',
    body: '<Fault><Code><Value>s:Sender</Value><Subcode><Value>ter:InvalidArgVal</Value></Subcode></Code></Fault>',
    kind: 'bad-argument',
  },
  { why: 'nothing at all', body: '<Fault/>', kind: 'other' },
])('faults of every version: $why', ({ body, kind }) => {
  const read = parseEnvelope(`<Envelope><Body>${body}</Body></Envelope>`);
  expect(read.ok && soapFaultIn(read.value)).toMatchObject({ kind });
});

test('what is written can be read, and nothing of a name breaks out of it', () =>
  fc.assert(
    fc.property(
      fc.string({ unit: 'grapheme', maxLength: 40 }).filter((text) => !/[\p{Cc}\ufffe\uffff]/u.test(text)),
      (name) => {
        const inner = ptz.SET_PRESET.write({ profile: name, name, token: name });
        const security = usernameToken({ user: name, password: 'x' }, new Uint8Array(16), '2026-11-27T12:00:00Z');
        const read = parseEnvelope(writeEnvelope({ operation: ptz.SET_PRESET, inner, to: '', security }));
        if (!read.ok) throw new Error(read.error.message);
        expect(childOf(read.value.body, 'SetPreset')).toMatchObject({ PresetName: expect.anything() });
        expect(Object.keys(read.value.body).filter((key) => !key.startsWith('#') && !key.startsWith('@'))).toEqual([
          'SetPreset',
        ]);
      },
    ),
  ));

test.each([
  { text: 'PT1S', seconds: 1 },
  { text: 'PT1M30.5S', seconds: 90.5 },
  { text: 'P1DT2H', seconds: 93_600 },
  { text: 'P', seconds: null },
  { text: 'PT', seconds: null },
  { text: '60', seconds: null },
  { text: '-PT1S', seconds: null },
])('a duration: $text', ({ text, seconds }) => expect(durationOf(text)).toBe(seconds));

test('a duration that is written is read as it was', () =>
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1e7 }), (ms) =>
      expect(durationOf(writeDuration(ms / 1000))).toBeCloseTo(ms / 1000, 6),
    ),
  ));

test.each([
  { text: '2026-11-27T12:00:00Z', at: Date.UTC(2026, 10, 27, 12) },
  { text: '2026-11-27T12:00:00', at: Date.UTC(2026, 10, 27, 12) },
  { text: '2026-11-27T14:00:00+02:00', at: Date.UTC(2026, 10, 27, 12) },
  { text: '27.11.2026', at: null },
  { text: '2026-99-27T12:00:00Z', at: null },
])('a moment: $text', ({ text, at }) => expect(momentOf(text)).toBe(at));

test('a reading is one that a site keeps', () => expect(checkReading({ ...READING, ptz: HEAD })).toBeNull());

test('hostile: what a file says was read is a reading or is refused by its place', () =>
  fc.assert(
    fc.property(fc.jsonValue(), fc.constantFrom(...Object.keys(READING)), (value, field) => {
      expect(checkReading(value)).toMatch(/./);
      const problem = checkReading({ ...READING, [field]: value });
      if (problem) expect(problem).toContain(`.${field}`);
    }),
  ));
