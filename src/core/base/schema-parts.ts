import {
  array,
  boolean,
  type InferType,
  type ISchema,
  lazy,
  mixed,
  number,
  type ObjectShape,
  object,
  type Schema,
  string,
} from 'yup';
import { hasControl } from './control-signs.ts';
import { TEXT_LIMITS } from './limits.ts';
import type { Range } from './range.ts';

// Strict throughout: nothing is cast, nothing unknown is let in, nothing is filled in. A file fits or is refused.
export const shape = <S extends ObjectShape>(fields: S) => object(fields).noUnknown().strict().required();

/** A schema that gives a T, and can be asked by itself. */
export interface Validator<T> extends ISchema<T> {
  validateSync(value: unknown, options?: { readonly strict?: boolean; readonly abortEarly?: boolean }): T;
}
export interface ShapeOf<T> extends Validator<T> {
  required(): ShapeOf<T>;
}
type FieldsOf<T> = { readonly [K in keyof T]-?: ISchema<T[K]> };

/**
 * The shape of a type: each of its fields with a schema that gives just that field's type. A field without a shape, a shape
 * without a field and a shape of another type do not compile.
 */
export const shapeOf =
  <T extends object>() =>
  (fields: FieldsOf<T>): ShapeOf<T> =>
    shape(fields as ObjectShape) as unknown as ShapeOf<T>; // FieldsOf has just proved it field by field

export const text = (max: number) => string().strict().defined().max(max);
/** Text that ends up in a line of a protocol or a playlist, or on a page's single line. */
export const line = (max: number) =>
  text(max).test(
    'no-control',
    '${path} must not contain line breaks or control characters',
    (value) => !hasControl(value),
  );

/** What every object has already, and what leads elsewhere as a part of an address. */
const TAKEN_IDS: ReadonlySet<string> = new Set(['.', '..', ...Object.getOwnPropertyNames(Object.prototype)]);
const ID = /^[A-Za-z0-9._-]+$/;
/** What is wrong with an id, in words; `null` when nothing is: the same rule as `id()`, for lists too long for a schema. */
export function idProblem(value: unknown): string | null {
  if (typeof value !== 'string' || value.length === 0) return 'must be an id';
  if (value.length > TEXT_LIMITS.id) return `must be at most ${TEXT_LIMITS.id} characters`;
  if (!ID.test(value)) return 'must be letters, digits, dots, dashes';
  return TAKEN_IDS.has(value) ? 'must not be a reserved word' : null;
}
export const id = (max: number = TEXT_LIMITS.id) =>
  text(max)
    .min(1)
    .matches(ID, '${path} must be letters, digits, dots, dashes')
    .test('free', '${path} must not be a reserved word', (value) => !TAKEN_IDS.has(value));
export const whole = (min: number, max: number) => number().strict().integer().min(min).max(max);
export const list = <T>(item: ISchema<T>, max: number): ShapeOf<readonly T[]> =>
  array(item).strict().required().max(max) as unknown as ShapeOf<readonly T[]>; // an array of T, as `array` says less plainly
export const oneOf = <const T extends string>(values: readonly T[]): ShapeOf<T> =>
  string()
    .strict()
    .oneOf([...values])
    .required() as unknown as ShapeOf<T>; // one of these words, and no other
export const oneNumberOf = <const T extends number>(values: readonly T[]): ShapeOf<T> =>
  number()
    .strict()
    .oneOf([...values])
    .required() as unknown as ShapeOf<T>; // Yup keeps the words of oneOf, and forgets its numbers
const NOTHING = mixed().nullable();
interface Needable extends ISchema<unknown> {
  required(): ISchema<unknown>;
}
export const orNull = <S extends Needable>(schema: S): ISchema<NonNullable<InferType<S>> | null> => {
  const needed = schema.required() as Schema; // made once: a site asks this ten thousand times
  return lazy((value: unknown) => (value === null ? NOTHING : needed)) as ISchema<NonNullable<InferType<S>> | null>;
};
/** One of several shapes, by what a field of it says; where that is none of them, the last resort tells what is wrong. */
export const byField = <T>(
  field: string,
  shapes: Readonly<Record<string, ISchema<unknown>>>,
  lastResort: ISchema<unknown>,
): Validator<T> =>
  lazy((value: unknown) => {
    const name =
      typeof value === 'object' && value !== null && Object.hasOwn(value, field)
        ? String(Object.getOwnPropertyDescriptor(value, field)?.value)
        : '';
    return (Object.hasOwn(shapes, name) ? shapes[name] : lastResort) as Schema;
  }) as unknown as Validator<T>; // each of the shapes gives its own kind of T
/** A number as its chapter allows it. */
export const within = ({ min, max, isWhole = false, isAbove = false }: Range) => {
  const limited = isAbove ? number().strict().moreThan(min).max(max) : number().strict().min(min).max(max);
  return (isWhole ? limited.integer() : limited).required();
};
export const real = (min: number, max: number) => number().strict().min(min).max(max);
/** Above zero: a length, a price of something sold, a size. */
export const positive = (max: number) => number().strict().moreThan(0).max(max);
export const flag = () => boolean().strict().required();
export const share = () => number().strict().min(0).max(1).required();
