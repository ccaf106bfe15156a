import { expect, test } from '@jest/globals';
import { ValidationError } from 'yup';
import type { Gear } from '../../src/core/document/chapters/gear/gear.ts';
import { readCardFile, writeCardFile } from '../../src/core/document/chapters/models/card-file.ts';
import { emptyModel } from '../../src/core/document/chapters/models/model-card.ts';
import { ALDER_MILL_MODELS } from '../../src/standins/alder-mill-models.ts';
import { ALDER_MILL_GEAR } from '../../src/standins/alder-mill-plan.ts';
import { gearFieldsOf, gearFormSchema, gearOf, USUAL_GEAR } from '../../src/web/things/gear/gear-form-schema.ts';
import { cardOf, fieldsOf, modelFormSchema, USUAL_LENS } from '../../src/web/things/model/model-form-schema.ts';

test.each(ALDER_MILL_MODELS.map((card) => ({ card, name: `${card.maker} ${card.model}` })))(
  'what the form shows of a card, it keeps: $name',
  async ({ card }) => {
    expect(cardOf(card.id, await modelFormSchema.validate(typedOf(fieldsOf(card))))).toEqual(card);
  },
);

/** As a browser gives it back: numbers as they are typed, nothing for what is empty. */
const typedOf = (fields: unknown) =>
  JSON.parse(JSON.stringify(fields), (_, value) => (typeof value === 'number' ? String(value) : value));

test('what the form of a card does not show is not lost: other small streams, and what they are coded in', async () => {
  const [card] = ALDER_MILL_MODELS;
  if (!card) throw new Error('no card');
  const subs = [
    { codecs: ['H265'], widthPx: 704, heightPx: 396, fps: 12 },
    { codecs: ['JPEG'], widthPx: 320, heightPx: 180, fps: 5 },
  ];
  const fields = await modelFormSchema.validate({ ...typedOf(fieldsOf({ ...card, subs })), price: '88' });
  expect(cardOf(card.id, fields, { ...card, subs })).toEqual({ ...card, subs, price: 88 });
});

const ODD_GEAR: readonly Gear[] = [
  { id: 'r', name: 'Router', kind: 'router', position: null, uploadMbps: 18 },
  ...ALDER_MILL_GEAR.map((gear) => (gear.kind === 'switch' ? { ...gear, pseVolts: 48 } : gear)),
];
test.each(ODD_GEAR.map((gear) => ({ gear, name: gear.name })))(
  'what the form shows of gear, and what it does not, it keeps: $name',
  async ({ gear }) => {
    const fields = await gearFormSchema.validate({ ...typedOf({ ...USUAL_GEAR, ...gearFieldsOf(gear) }) });
    const { id, name, position } = gear;
    expect(gearOf({ id, name, position }, fields, gear)).toEqual(gear);
  },
);

test('an empty form is an empty card, which a file takes', async () => {
  const fields = await modelFormSchema.validate({ ...fieldsOf(emptyModel('m', '', '')), model: 'Eye' });
  const card = cardOf('m', fields);
  expect(card).toEqual(emptyModel('m', '', 'Eye'));
  expect(readCardFile(writeCardFile([card])).ok).toBe(true);
});

const blank = fieldsOf(emptyModel('m', 'Tarrow', 'Eye'));
test.each([
  { why: 'no model', change: { model: ' ' }, path: 'model', says: /needed/ },
  {
    why: 'a voltage range upside down',
    change: { minVolts: '24', maxVolts: '12' },
    path: 'maxVolts',
    says: /below the least/,
  },
  { why: 'words for a number', change: { dayW: 'some' }, path: 'dayW', says: /a number, such as/ },
  { why: 'a negative reach', change: { lightReachM: '-4' }, path: 'lightReachM', says: /0 to 500 m, not -4/ },
  { why: 'class nine', change: { poeClass: '9' }, path: 'poeClass', says: /0 to 8, not 9/ },
  {
    why: 'a lens without pixels',
    change: { lenses: [{ ...USUAL_LENS, widthPx: '' }] },
    path: 'lenses[0].widthPx',
    says: /needed/,
  },
  {
    why: 'a lens wider than its sensor allows',
    change: { lenses: [{ ...USUAL_LENS, measuredHfovDeg: '160' }] },
    path: 'lenses[0].measuredHfovDeg',
    says: /wider than sensor and focal length allow: they give 90°/,
  },
  {
    why: 'a far end before the wide one',
    change: { lenses: [{ ...USUAL_LENS, focalTeleMm: '2' }] },
    path: 'lenses[0].focalTeleMm',
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

test('a comma is a point, and codecs are told apart however they are parted', async () => {
  const fields = await modelFormSchema.validate({ ...blank, dayW: '4,5', codecs: 'h264; H265 ,jpeg' });
  const card = cardOf('m', fields);
  expect(card.power.dayW).toBe(4.5);
  expect(card.codecs).toEqual(['H264', 'H265', 'JPEG']);
});
