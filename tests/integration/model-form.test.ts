import { expect, test } from '@jest/globals';
import { ValidationError } from 'yup';
import type { Gear } from '../../src/core/document/chapters/gear/gear.ts';
import { readCardFile, writeCardFile } from '../../src/core/document/chapters/models/card-file.ts';
import { emptyModel } from '../../src/core/document/chapters/models/model-fields.ts';
import { ALDER_MILL_GEAR, ALDER_MILL_MODELS } from '../../src/standins/alder-mill.ts';
import { gearFieldsOf, gearFormSchema, gearOf } from '../../src/web/things/gear/gear-form-schema.ts';
import { cardOf, fieldsOf, modelFormSchema, NEW_LENS } from '../../src/web/things/model/model-form-schema.ts';

test.each(ALDER_MILL_MODELS.map((card) => ({ card, name: `${card.maker} ${card.model}` })))(
  'what the form shows of a card, it keeps: $name',
  async ({ card }) => {
    expect(cardOf(card.id, await modelFormSchema.validate(typedOf(fieldsOf(card))), card)).toEqual(card);
  },
);

/** As a browser gives it back: numbers as they are typed, nothing for what is empty. */
const typedOf = (fields: unknown) =>
  JSON.parse(JSON.stringify(fields), (_, value) => (typeof value === 'number' ? String(value) : value));

test('small streams and their paths stand in the form, each of them', async () => {
  const [card] = ALDER_MILL_MODELS;
  if (!card) throw new Error('no card');
  const subs = [
    { codecs: ['H265'], widthPx: 704, heightPx: 396, fps: 12, path: '/live/{channel}' },
    { codecs: ['JPEG'], widthPx: 320, heightPx: 180, fps: 5, path: '' },
  ];
  const fields = await modelFormSchema.validate({ ...typedOf(fieldsOf({ ...card, subs })), price: '88' });
  expect(cardOf(card.id, fields, card)).toEqual({ ...card, subs, price: 88 });
});

const ODD_GEAR: readonly Gear[] = [
  { id: 'r', name: 'Router', kind: 'router', price: null, position: null, uploadMbps: 18 },
  ...ALDER_MILL_GEAR.map((gear) => (gear.kind === 'switch' ? { ...gear, pseVolts: 48 } : gear)),
];
test.each(ODD_GEAR.map((gear) => ({ gear, name: gear.name })))(
  'what the form shows of gear, and what it does not, it keeps: $name',
  async ({ gear }) => {
    const fields = await gearFormSchema.validate(typedOf(gearFieldsOf(gear)));
    const { id, position } = gear;
    expect(gearOf({ id, position }, fields, gear)).toEqual(gear);
  },
);

test('an empty form is an empty card, which a file takes', async () => {
  const fields = await modelFormSchema.validate({ ...fieldsOf(emptyModel('m', '', '')), model: 'Eye' });
  const card = cardOf('m', fields);
  expect(card).toEqual(emptyModel('m', '', 'Eye'));
  expect(readCardFile(writeCardFile([card])).ok).toBe(true);
});

const WHOLE_LENS = { ...NEW_LENS, size: '1920×1080', focal: '2.8 mm', sensor: '1/2.8"' };
const blank = fieldsOf(emptyModel('m', 'Tarrow', 'Eye'));
test.each([
  { why: 'no model', change: { model: ' ' }, path: 'model', says: /needed/ },
  {
    why: 'a voltage range upside down',
    change: { fedBy: '24–12 V' },
    path: 'fedBy',
    says: /below the lowest/,
  },
  {
    why: 'words for a number',
    change: { power: { ...blank.power, dayW: 'some' } },
    path: 'power.dayW',
    says: /a number, such as/,
  },
  {
    why: 'a negative reach',
    change: { light: { ...blank.light, reachM: '-4' } },
    path: 'light.reachM',
    says: /0 to 500 m, not -4/,
  },
  { why: 'a way of power that is none', change: { fedBy: 'hamster wheel' }, path: 'fedBy', says: /not a power source/ },
  { why: 'a codec that is none', change: { codecs: 'H.264, Foo' }, path: 'codecs', says: /“Foo” is not a codec/ },
  { why: 'a code that is none', change: { ingress: 'rain' }, path: 'ingress', says: /not an IP code/ },
  { why: 'a path without its slash', change: { path: 'live' }, path: 'path', says: /starts with \// },
  {
    why: 'a size that is sold in two shapes',
    change: { lenses: [{ ...NEW_LENS, size: '5MP' }] },
    path: 'lenses[0].size',
    says: /2880×1620 and as 2592×1944: write which/,
  },
  {
    why: 'a lens wider than its sensor allows',
    change: { lenses: [{ ...WHOLE_LENS, measuredHfovDeg: '160' }] },
    path: 'lenses[0].measuredHfovDeg',
    says: /wider than sensor and focal length allow: they give 90°/,
  },
  {
    why: 'a far end before the wide one',
    change: { lenses: [{ ...WHOLE_LENS, focal: '2.8–2' }] },
    path: 'lenses[0].focal',
    says: /below the wide end/,
  },
])('refused at its field: $why', async ({ change, path, says }) => {
  const error: unknown = await modelFormSchema
    .validate({ ...blank, ...change }, { abortEarly: false })
    .catch((caught: unknown) => caught);
  if (!(error instanceof ValidationError)) throw new Error('nothing was refused');
  const own = error.inner.find((one) => one.path === path);
  expect(own?.message).toMatch(says);
});

test('what was left empty is not known: no lens, no angle of light, no small stream, no loss', async () => {
  const fields = await modelFormSchema.validate({
    ...blank,
    lenses: [NEW_LENS],
    lightKind: 'infrared',
    light: { ...blank.light, reachM: '30' },
    sub: 'yes',
    subs: [{ codecs: '', size: '', fps: '', path: '/live/{channel}/sub' }],
  });
  expect(cardOf('m', fields)).toMatchObject({
    lenses: [],
    light: { kind: 'infrared', reachM: 30, angleDeg: null },
    subs: [{ codecs: [], widthPx: null, heightPx: null, fps: null, path: '/live/{channel}/sub' }],
    lostWithoutAccount: null,
  });
});

test('figures as people write them', async () => {
  const fields = await modelFormSchema.validate({
    ...blank,
    codecs: 'H.264, H.265+',
    ingress: 'IP67',
    fedBy: '802.3af, 12 V',
    power: { ...blank.power, dayW: '4,5 W' },
    lenses: [{ ...NEW_LENS, size: '4MP', focal: '2.8 mm' }],
  });
  expect(cardOf('m', fields)).toMatchObject({
    codecs: ['H264', 'H265'],
    ingress: 67,
    power: { ways: ['poe', 'dc'], poeClass: 3, minVolts: 10.8, maxVolts: 13.2, dayW: 4.5 },
    lenses: [{ widthPx: 2560, heightPx: 1440, focalWideMm: 2.8, focalTeleMm: 2.8, sensorWidthMm: null }],
  });
});

test('a comma is a point, and codecs are told apart however they are parted', async () => {
  const fields = await modelFormSchema.validate({
    ...blank,
    power: { ...blank.power, dayW: '4,5' },
    codecs: 'h264; H265 ,jpeg',
  });
  const card = cardOf('m', fields);
  expect(card.power.dayW).toBe(4.5);
  expect(card.codecs).toEqual(['H264', 'H265', 'JPEG']);
});
