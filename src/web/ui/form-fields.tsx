import type { ReactNode } from 'react';
import {
  type FieldPath,
  type FieldValues,
  FormProvider,
  type SubmitHandler,
  type UseFormReturn,
  useController,
  useFormContext,
} from 'react-hook-form';
import { CheckField } from './check-field.tsx';
import { SelectField, TextField } from './text-field.tsx';

interface FormProps<Fields extends FieldValues, Kept> {
  readonly form: UseFormReturn<Fields, unknown, Kept>;
  readonly onKeep: SubmitHandler<Kept>;
  readonly className: string;
  readonly children: ReactNode;
}

/** A form that is kept whole or not at all; its fields find it by themselves. */
export function Form<Fields extends FieldValues, Kept>({ form, onKeep, className, children }: FormProps<Fields, Kept>) {
  return (
    <FormProvider {...form}>
      <form onSubmit={(event) => void form.handleSubmit(onKeep)(event)} className={className} noValidate>
        {children}
      </form>
    </FormProvider>
  );
}

interface Common<Fields extends FieldValues> {
  readonly name: FieldPath<Fields>;
  readonly label: string;
  readonly className?: string;
}
export interface Field<Fields extends FieldValues> extends Common<Fields> {
  readonly isText?: boolean;
  readonly isCode?: boolean;
  readonly placeholder?: string;
  readonly hint?: ReactNode;
}
export interface Choice<Fields extends FieldValues> extends Common<Fields> {
  /** Beside keeping it. */
  readonly onChosen?: (value: string) => void;
  readonly options: readonly { readonly value: string; readonly label: string }[];
}
export interface Tick<Fields extends FieldValues> extends Common<Fields> {
  /** Of several under one name: what this one stands for. */
  readonly value?: string;
}

/** The fields of one form: a name that is none of its own does not compile. What is wrong with one is said below it. */
export function fieldsFor<Fields extends FieldValues>() {
  return {
    Field({ name, isText = false, ...rest }: Field<Fields>) {
      const { register, getFieldState, formState } = useFormContext<Fields>();
      const { error } = getFieldState(name, formState);
      const mode = isText ? 'text' : 'decimal';
      return <TextField inputMode={mode} error={error?.message} {...rest} {...register(name)} />;
    },
    Choice({ name, onChosen, ...rest }: Choice<Fields>) {
      const { field } = useController<Fields>({ name });
      const choose = (value: string): void => {
        field.onChange(value);
        onChosen?.(value);
      };
      return <SelectField value={String(field.value ?? '')} onChange={choose} {...rest} />;
    },
    Tick({ name, ...rest }: Tick<Fields>) {
      return <CheckField {...rest} {...useFormContext<Fields>().register(name)} />;
    },
  };
}
