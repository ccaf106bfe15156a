import { array, boolean, type ISchema, lazy, mixed, number, type ObjectShape, object, type Schema, string } from 'yup';

// Strict throughout: nothing is cast, nothing unknown is let in, nothing is filled in. A file fits or is refused.
export const shape = <S extends ObjectShape>(fields: S) => object(fields).noUnknown().strict().required();
export const text = (max = 200) => string().strict().defined().max(max);
export const id = () =>
  text(80)
    .min(1)
    .matches(/^[A-Za-z0-9._-]+$/, '${path} must be letters, digits, dots, dashes');
export const whole = (min: number, max: number) => number().strict().integer().min(min).max(max);
export const list = (item: ISchema<unknown>, max: number) => array(item).strict().required().max(max);
export const oneOf = <T extends string>(values: readonly T[]) =>
  string()
    .strict()
    .oneOf([...values])
    .required();
export const orNull = <S extends Schema>(schema: S) =>
  lazy((value: unknown) => (value === null ? mixed().nullable() : schema.required()));
export const real = (min: number, max: number) => number().strict().min(min).max(max);
/** Above zero: a length, a price of something sold, a size. */
export const positive = (max: number) => number().strict().moreThan(0).max(max);
export const flag = () => boolean().strict().required();
export const share = () => number().strict().min(0).max(1).required();
