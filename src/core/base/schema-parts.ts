import { array, boolean, type ISchema, lazy, mixed, number, type ObjectShape, object, type Schema, string } from 'yup';
import { hasControl } from './control-signs.ts';
import { TEXT_LIMITS } from './limits.ts';
import { isMoment } from './moment.ts';

// Strict throughout: nothing is cast, nothing unknown is let in, nothing is filled in. A file fits or is refused.
export const shape = <S extends ObjectShape>(fields: S) => object(fields).noUnknown().strict().required();
export const text = (max: number) => string().strict().defined().max(max);
/** Text that ends up in a line of a protocol or a playlist, or on a page's single line. */
export const line = (max: number) =>
  text(max).test('no-control', '${path} must hold no line ends and no control signs', (value) => !hasControl(value));

/** What every object has already, and what leads elsewhere as a part of an address. */
const TAKEN_IDS: ReadonlySet<string> = new Set(['.', '..', ...Object.getOwnPropertyNames(Object.prototype)]);
export const id = (max: number = TEXT_LIMITS.id) =>
  text(max)
    .min(1)
    .matches(/^[A-Za-z0-9._-]+$/, '${path} must be letters, digits, dots, dashes')
    .test('free', '${path} must be none of the words that mean something else here', (value) => !TAKEN_IDS.has(value));
/** A moment in UTC, as `toISOString` writes it; 31 February is none. */
export const moment = () =>
  string()
    .strict()
    .required()
    .test('moment', '${path} must be a time in UTC', (value) => isMoment(value));
export const whole = (min: number, max: number) => number().strict().integer().min(min).max(max);
export const list = (item: ISchema<unknown>, max: number) => array(item).strict().required().max(max);
export const oneOf = <T extends string>(values: readonly T[]) =>
  string()
    .strict()
    .oneOf([...values])
    .required();
const NOTHING = mixed().nullable();
export const orNull = <S extends Schema>(schema: S) => {
  const needed = schema.required(); // made once: a site asks this ten thousand times
  return lazy((value: unknown) => (value === null ? NOTHING : needed));
};
export const real = (min: number, max: number) => number().strict().min(min).max(max);
/** Above zero: a length, a price of something sold, a size. */
export const positive = (max: number) => number().strict().moreThan(0).max(max);
export const flag = () => boolean().strict().required();
export const share = () => number().strict().min(0).max(1).required();
