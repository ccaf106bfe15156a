import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ALDER_MILL_MODELS } from '../../../../standins/alder-mill.ts';
import { readCardFile, writeCardFile } from './card-file.ts';

test('a file of cards opens again as the same cards', () => {
  expect(readCardFile(writeCardFile(ALDER_MILL_MODELS))).toEqual({ ok: true, value: ALDER_MILL_MODELS });
  expect(readCardFile(writeCardFile([]))).toEqual({ ok: true, value: [] });
});

const [card] = ALDER_MILL_MODELS;
const withCard = (change: object): string =>
  JSON.stringify({ format: 'clear-tap/model-cards', version: 1, cards: [{ ...card, ...change }] });

test.each([
  { why: 'cut off', file: writeCardFile(ALDER_MILL_MODELS).slice(0, 300), code: 'cards.not-json', says: /whole JSON/ },
  { why: 'a site', file: '{"format":"clear-tap/site"}', code: 'cards.not-cards', says: /model-cards/ },
  {
    why: 'a newer version',
    file: '{"format":"clear-tap/model-cards","version":9,"cards":[]}',
    code: 'cards.newer-version',
    says: /version 9/,
  },
  { why: 'a negative price', file: withCard({ price: -1 }), code: 'cards.does-not-fit', says: /cards\[0\]\.price/ },
  { why: 'a field nobody knows', file: withCard({ smell: 'of tar' }), code: 'cards.does-not-fit', says: /cards\[0\]/ },
  {
    why: 'a far end before the wide end',
    file: withCard({ lenses: [{ ...card?.lenses[0], focalTeleMm: 1 }] }),
    code: 'cards.does-not-fit',
    says: /focalTeleMm/,
  },
  {
    why: 'class 9',
    file: withCard({ power: { ...card?.power, poeClass: 9 } }),
    code: 'cards.does-not-fit',
    says: /poeClass/,
  },
])('refused whole, with its reason: $why', ({ file, code, says }) => {
  const read = readCardFile(file);
  expect(read).toMatchObject({ ok: false, error: { code } });
  expect(read.ok ? '' : read.error.message).toMatch(says);
});

test('any text is read or refused, never an exception', () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.json()), (file) => expect(typeof readCardFile(file).ok).toBe('boolean')),
  );
});
