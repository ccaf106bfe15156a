import type { ISchema } from 'yup';
import {
  flag,
  line,
  list,
  oneNumberOf,
  oneOf,
  orNull,
  type ShapeOf,
  shape,
  text,
  within,
} from '../base/schema-parts.ts';
import { STREAM_PATH } from '../net/path-places.ts';
import type { AnyField, Choosable, FieldTable } from './field.ts';

type OwnNames<Table> = {
  [K in keyof Table]: Table[K] extends { readonly kind: 'own' } ? K : never;
}[keyof Table];

/** A path as a camera takes it. */
export const pathShape = (max: number) =>
  line(max).matches(STREAM_PATH, '${path} must start with / and must not contain spaces');

const isNumber = (value: Choosable): value is number => typeof value === 'number';
const isText = (value: Choosable): value is string => typeof value === 'string';
const oneAmong = (values: readonly Choosable[]) =>
  values.some(isNumber) ? oneNumberOf(values.filter(isNumber)) : oneOf(values.filter(isText));

function shapeOfField(field: AnyField): ISchema<unknown> {
  switch (field.kind) {
    case 'number':
      return field.isOptional ? orNull(within(field.range)) : within(field.range);
    case 'line':
      return field.isNeeded ? line(field.max).min(1) : line(field.max);
    case 'text':
      return text(field.max);
    case 'path':
      return pathShape(field.max);
    case 'choice':
      return field.isOptional ? orNull(oneAmong(field.values)) : oneAmong(field.values);
    case 'flag':
      return field.isOptional ? orNull(flag()) : flag();
    case 'several':
      return list(oneOf(field.values), field.values.length);
    case 'own':
      throw new RangeError(`${field.label}: a field of its own has a shape of its own`);
  }
}

/**
 * The shape of a record from its table.
 * @param own shapes of the fields that the table leaves to its chapter
 */
export const shapeFrom =
  <T extends object>() =>
  <Table extends { readonly [K in keyof Table]: K extends keyof T ? FieldTable<T>[K] : never }>(
    table: Table,
    own: { readonly [K in OwnNames<Table> | Exclude<keyof T, keyof Table>]: ISchema<K extends keyof T ? T[K] : never> },
  ): ShapeOf<T> => {
    const given: Readonly<Record<string, ISchema<unknown>>> = own;
    const fields: Record<string, ISchema<unknown>> = {};
    // in the order of the table: what is wrong first is told first
    for (const [name, field] of Object.entries<AnyField>(table as never)) // rows of the kinds above
      fields[name] = given[name] ?? shapeOfField(field);
    Object.assign(fields, given);
    return shape(fields as never) as unknown as ShapeOf<T>; // the table and `own` have a shape for each field of T
  };
