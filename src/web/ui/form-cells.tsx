import type { ReactNode } from 'react';
import type { FieldPath, FieldValues } from 'react-hook-form';
import type { AnyField, Choosable } from '../../core/fields/field.ts';
import { fieldsFor } from './form-fields.tsx';

const NOT_KNOWN = { value: '', label: 'not known' };
export const YES_NO = [NOT_KNOWN, { value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }];
/** Words of a choice, with nothing chosen before them. */
export const choicesOf = (values: readonly Choosable[], words: Readonly<Record<string, string>> = {}) => [
  NOT_KNOWN,
  ...values.map((value) => ({ value: String(value), label: words[value] ?? String(value) })),
];

interface CellProps<Fields extends FieldValues> {
  readonly name: FieldPath<Fields>;
  readonly field: AnyField;
  readonly className?: string;
  readonly onChosen?: (value: string) => void;
}
interface CellsProps {
  readonly table: object;
  readonly group?: string;
  /** The name that the record has in the form; empty where the form is the record. */
  readonly under?: string;
  readonly className?: string;
}

const { Field, Choice, Tick } = fieldsFor<FieldValues>();

function Cell({ name, field, className = '', onChosen }: CellProps<FieldValues>): ReactNode {
  const { label, isWide } = field;
  const common = { name, label, className: `${isWide ? 'col-span-2' : ''} ${className}` };
  const help = {
    ...(field.placeholder ? { placeholder: field.placeholder } : {}),
    ...(field.hint ? { hint: field.hint } : {}),
  };
  switch (field.kind) {
    case 'number':
      return <Field {...common} {...help} />;
    case 'line':
    case 'text':
    case 'path':
      return <Field {...common} {...help} isText isCode={field.kind === 'path'} />;
    case 'choice': {
      const { values, words, isOptional } = field;
      const [none, ...others] = choicesOf(values, words);
      const unsaid = none && { ...none, label: words[''] ?? none.label };
      const options = isOptional && unsaid ? [unsaid, ...others] : others;
      return <Choice {...common} options={options} {...(onChosen ? { onChosen } : {})} />;
    }
    case 'flag':
      return field.isOptional ? <Choice {...common} options={YES_NO} /> : <Tick {...common} />;
    case 'several':
      return (
        <span className={`flex flex-wrap gap-x-3 ${className}`}>
          <span className="self-center text-small text-soft">{label}</span>
          {field.values.map((value) => (
            <Tick key={value} name={name} value={value} label={field.words[value] ?? value} />
          ))}
        </span>
      );
    case 'own':
      throw new RangeError(`${label}: a field of its own has cells of its own`);
  }
}

/** The cells of a group, in the order of the table. */
function Cells({ table, group, under = '', className = '' }: CellsProps): ReactNode {
  return Object.entries<AnyField>(table as never) // rows of a field table
    .filter(([, field]) => field.kind !== 'own' && field.group === group)
    .map(([name, field]) => (
      <Cell key={name} name={under === '' ? name : `${under}.${name}`} field={field} className={className} />
    ));
}

/** Fields of one form, and cells that are made from the lines of a field table. */
export const cellsFor = <Fields extends FieldValues>() => ({
  ...fieldsFor<Fields>(),
  Cell: Cell as (props: CellProps<Fields>) => ReactNode, // a name of these fields is a name
  Cells,
});
