import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ASSUMPTIONS } from '../../src/core/assumptions/assumptions.ts';
import { assumptionsShape } from '../../src/core/document/chapters/assumptions/assumptions-shape.ts';
import { GEAR_KINDS } from '../../src/core/document/chapters/gear/gear.ts';
import { gearShape } from '../../src/core/document/chapters/gear/gear-shape.ts';
import { emptyModel, MODEL_RANGES } from '../../src/core/document/chapters/models/model-fields.ts';
import { modelShape } from '../../src/core/document/chapters/models/model-shape.ts';
import { alderMill } from '../../src/standins/alder-mill.ts';
import { type GearFields, gearFieldsOf, gearFormSchema, gearOf } from '../../src/web/things/gear/gear-form-schema.ts';
import { cardOf, fieldsOf, modelFormSchema } from '../../src/web/things/model/model-form-schema.ts';
import { sizeField } from '../../src/web/ui/form-texts.ts';
import { typedNumber } from '../../src/web/ui/typed-number.ts';
import { runs } from '../support/runs.ts';

// The law for forms: what a form keeps, the schema takes. Their limits stand beside their fields; a field that lets
// through what the document refuses would say so in a bar at the top, and not where it was typed.

const typed = fc.oneof(
  fc.constantFrom(
    '',
    '0',
    '-1',
    '0.5',
    '1.5',
    '8,4',
    '20000',
    '20000.4',
    '1e300',
    '-1e300',
    'constructor',
    'ß'.repeat(20),
  ),
  fc.constantFrom(
    'x'.repeat(5000),
    'ŉ,'.repeat(30),
    'a;'.repeat(19),
    '\u0000',
    '\ud800',
    '1e-320',
    '0.04',
    '96.5',
    '69.4',
  ),
  fc.double({ noNaN: true }).map(String),
  fc.string({ unit: 'grapheme', maxLength: 130 }),
);

/** A few fields of a form that fits typed anew, each with anything. */
const retyped = <T extends object>(fields: T) =>
  fc
    .array(fc.tuple(fc.constantFrom(...Object.keys(fields)), typed), { minLength: 1, maxLength: 2 })
    .map((pairs) => ({ ...fields, ...Object.fromEntries(pairs) }));

const CARDS = [...alderMill('2026-11-25T09:00:00.000Z').models, emptyModel('card', 'Pellam', 'B4')];

test('a card that its form keeps is one that the document takes', () => {
  let kept = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(...CARDS).chain((card) =>
        fc.record({
          card: fc.constant(card),
          fields: fc.oneof(
            retyped(fieldsOf(card)),
            retyped<object>(fieldsOf(card).power).map((power) => ({ ...fieldsOf(card), power })),
          ),
          lens: fc.dictionary(fc.constantFrom('label', 'focal', 'size', 'sensor', 'axisDeg'), typed, {
            maxKeys: 1,
          }),
        }),
      ),
      ({ card, fields, lens }) => {
        const lenses = fieldsOf(card).lenses.map((one, at) => (at === 0 ? { ...one, ...lens } : one));
        let values: ReturnType<typeof fieldsOf>;
        try {
          values = modelFormSchema.validateSync({ ...fields, lenses }) as ReturnType<typeof fieldsOf>; // as the resolver hands it on
        } catch {
          return; // refused at its field
        }
        kept += 1;
        expect(() => modelShape.validateSync(cardOf(card.id, values, card), { strict: true })).not.toThrow();
      },
    ),
    runs(1000),
  );
  expect(kept).toBeGreaterThan(20);
});

const usualGear = { ...gearFieldsOf(null), name: 'Switch' };
const retypedGear = fc.constantFrom(...GEAR_KINDS).chain((kind) => {
  const part = kind === 'access-point' ? 'accessPoint' : kind;
  return fc
    .oneof(
      retyped({ name: 'Gear', price: undefined }),
      retyped<object>(usualGear[part]).map((figures) => ({ [part]: figures })),
    )
    .map((change) => ({ ...usualGear, ...change, kind }));
});

test('gear that its form keeps is one that the document takes', () => {
  let kept = 0;
  fc.assert(
    fc.property(retypedGear, (fields) => {
      let values: GearFields;
      try {
        values = gearFormSchema.validateSync(fields);
      } catch {
        return;
      }
      kept += 1;
      const made = gearOf({ id: 'gear', position: null }, values);
      expect(() => gearShape.validateSync(made, { strict: true })).not.toThrow();
    }),
    runs(1000),
  );
  expect(kept).toBeGreaterThan(50);
});

test.each([
  { text: ' 8,4 ', is: 8.4 },
  { text: '1e3', is: 1000 },
  { text: '', is: undefined },
  { text: '0x10', is: Number.NaN },
  { text: '0b1', is: Number.NaN },
  { text: 'eight', is: Number.NaN },
])('“$text” typed into a field of numbers is $is', ({ text, is }) => expect(typedNumber(text)).toEqual(is));

test('an assumption is taken from a file as its field takes it; one that is not known here is kept', () => {
  for (const { id, min, max } of ASSUMPTIONS) {
    expect(assumptionsShape.validateSync({ [id]: max }, { strict: true })).toEqual({ [id]: max });
    for (const value of [max + 1, min - 1])
      expect(() => assumptionsShape.validateSync({ [id]: value }, { strict: true })).toThrow(id);
  }
  expect(assumptionsShape.validateSync({ 'of.tomorrow': 7 }, { strict: true })).toEqual({ 'of.tomorrow': 7 });
});

test.each([
  { text: '1920x1080', isWhole: true, says: null },
  { text: '?×720', isWhole: false, says: null },
  { text: '?×720', isWhole: true, says: /Both sides/ },
  { text: '99999×99999', isWhole: false, says: /16 to 20000 pixels/ },
  { text: 'large', isWhole: false, says: /not a resolution/ },
])('a picture’s size, $text, whole $isWhole', async ({ text, isWhole, says }) => {
  const found: unknown = await sizeField(MODEL_RANGES.sidePx, { isWhole })
    .validate(text)
    .then(() => null)
    .catch((error: unknown) => (error instanceof Error ? error.message : error));
  if (says === null) expect(found).toBeNull();
  else expect(found).toMatch(says);
});
