import { array, boolean, type ISchema, string } from 'yup';
import type { AnyField, TextField as TextRow } from '../../core/fields/field.ts';
import { STREAM_PATH } from '../../core/net/path-places.ts';
import { neededNumber, optionalNumber } from './form-numbers.ts';
import { notesField, textField } from './form-texts.ts';

// The form of a record is made from the table of its fields: what each is typed as, how it is read, what is wrong with it.

/** What a form holds of a field. A choice and a yes or no that nobody made are an empty text. */
type TypedAs<F> = F extends { readonly kind: 'number' }
  ? number | undefined
  : F extends { readonly kind: 'several' }
    ? string[]
    : F extends { readonly kind: 'flag'; readonly usual: infer U }
      ? null extends U
        ? string
        : boolean
      : string;
type Named<Table> = { [K in keyof Table]: Table[K] extends { readonly kind: 'own' } ? never : K }[keyof Table];
/** What a form holds of a record; fields of their own stand in it by hand. */
export type TypedOf<Table> = { -readonly [K in Named<Table>]: TypedAs<Table[K]> };
type RecordOf<Table> = {
  readonly [K in Named<Table>]: Table[K] extends { readonly usual: infer V } ? V : never;
};

/** What stands before the unit: a message calls the field so. */
const plainLabel = ({ label }: AnyField): string => label.split(/[,(]/)[0]?.trim() ?? label;

/** A path of a stream, which may stay out. */
export const pathSchema = (max: number) =>
  string()
    .trim()
    .max(max)
    .matches(
      STREAM_PATH,
      'A path starts with / and has no spaces. {channel}, {user} and {password} stand for what is filled in.',
    )
    .defined();
function textSchema({
  kind,
  max,
  isNeeded,
  label,
  missing,
}: Pick<TextRow, 'kind' | 'max' | 'isNeeded' | 'label' | 'missing'>): ISchema<string> {
  if (kind === 'text') return notesField(max);
  if (kind === 'path') return pathSchema(max);
  return isNeeded ? textField(max).required(missing ?? `A ${label.toLowerCase()} is needed.`) : textField(max);
}

function schemaOf(field: AnyField): ISchema<unknown> | null {
  switch (field.kind) {
    case 'number':
      return (field.isNeeded ? neededNumber : optionalNumber)(plainLabel(field), field.range);
    case 'line':
    case 'text':
    case 'path':
      return textSchema(field);
    case 'choice':
      return string()
        .oneOf([...(field.isOptional ? [''] : []), ...field.values.map(String)])
        .defined();
    case 'flag':
      return field.isOptional ? string().oneOf(['', 'yes', 'no']).defined() : boolean().required();
    case 'several':
      return array(
        string()
          .oneOf([...field.values])
          .defined(),
      ).required();
    case 'own':
      return null;
  }
}

function shown(field: AnyField, value: unknown): unknown {
  switch (field.kind) {
    case 'number':
      return value ?? undefined;
    case 'choice':
      return String(value ?? '');
    case 'flag':
      return field.isOptional ? (value === null ? '' : value ? 'yes' : 'no') : value;
    case 'several':
      return Array.isArray(value) ? [...value] : [];
    default:
      return value;
  }
}

function readBack(field: AnyField, typed: unknown): unknown {
  switch (field.kind) {
    case 'number':
      return typed ?? field.usual;
    case 'choice':
      return field.values.find((one) => String(one) === typed) ?? field.usual;
    case 'flag':
      return field.isOptional ? (typed === 'yes' ? true : typed === 'no' ? false : null) : typed;
    case 'several':
      return Array.isArray(typed) ? field.values.filter((one) => typed.includes(one)) : [];
    default:
      return typed;
  }
}

interface FormTable<Table> {
  /** For the schema of the form. */
  readonly fields: { readonly [K in Named<Table>]: ISchema<TypedAs<Table[K]>> };
  readonly show: (record: RecordOf<Table>) => TypedOf<Table>;
  /** A field that was left empty is as it usually is. */
  readonly read: (typed: { readonly [K in Named<Table>]?: TypedAs<Table[K]> | undefined }) => RecordOf<Table>;
}

export function formTable<Table extends object>(table: Table): FormTable<Table> {
  const rows = Object.entries<AnyField>(table as never).filter(([, { kind }]) => kind !== 'own'); // rows of a field table
  const made = (one: (field: AnyField, value: unknown) => unknown) => (record: object) => {
    const values: Readonly<Record<string, unknown>> = { ...record };
    return Object.fromEntries(rows.map(([name, field]) => [name, one(field, values[name])]));
  };
  return {
    fields: Object.fromEntries(rows.map(([name, field]) => [name, schemaOf(field)])),
    show: made(shown),
    read: made(readBack),
  } as unknown as FormTable<Table>; // each name of the table, by what its row says
}
