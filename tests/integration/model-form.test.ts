import { expect, test } from '@jest/globals';
import { ValidationError } from 'yup';
import { readCardFile, writeCardFile } from '../../src/core/models/card-file.ts';
import { emptyModel } from '../../src/core/models/model-card.ts';
import { ALDER_MILL_MODELS } from '../../src/standins/alder-mill-models.ts';
import { cardOf, fieldsOf, modelFormSchema, USUAL_LENS } from '../../src/web/library/model-form-schema.ts';

test.each(ALDER_MILL_MODELS.map((card) => ({ card, name: `${card.maker} ${card.model}` })))(
  'what the form shows of a card, it keeps: $name',
  async ({ card }) => {
    // As a browser gives it back: numbers as they are typed, nothing for what is empty.
    const typed = JSON.parse(JSON.stringify(fieldsOf(card)), (_, value) =>
      typeof value === 'number' ? String(value) : value,
    );
    expect(cardOf(card.id, await modelFormSchema.validate(typed))).toEqual(card);
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
