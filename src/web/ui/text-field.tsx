import { type InputHTMLAttributes, type ReactNode, type Ref, useId } from 'react';

interface TextFieldProps extends InputHTMLAttributes<HTMLInputElement> {
  readonly label: string;
  /** What is wrong with what was typed; stands below the field and is announced. */
  readonly error?: string | null | undefined;
  /** What is likely wrong, and kept all the same. */
  readonly warning?: string | null | undefined;
  readonly hint?: ReactNode;
  readonly isCode?: boolean;
  readonly ref?: Ref<HTMLInputElement>;
}

export function TextField({ label, error, warning, hint, isCode = false, className = '', ...rest }: TextFieldProps) {
  const id = useId();
  const noteId = `${id}-note`;
  return (
    <div className={`flex min-w-0 flex-col ${className}`}>
      <label htmlFor={id} className="text-small text-soft">
        {label}
      </label>
      <input
        id={id}
        aria-invalid={error ? true : undefined}
        aria-describedby={error || warning || hint ? noteId : undefined}
        autoComplete="off"
        spellCheck={false}
        className={`min-h-8 w-full rounded-control border bg-paper px-2 py-1 pointer-coarse:min-h-11 ${isCode ? 'font-mono' : ''} ${error ? 'border-brick' : warning ? 'border-brass' : 'border-hair'}`}
        {...rest}
      />
      {(error || warning || hint) && (
        <p id={noteId} className={`mt-0.5 text-small ${error ? 'text-brick' : warning ? 'text-brass' : 'text-soft'}`}>
          {error || warning || hint}
        </p>
      )}
    </div>
  );
}

interface SelectFieldProps {
  readonly label: string;
  /** What it is called where several of one label stand in a list. */
  readonly name?: string;
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  readonly onChange: (value: string) => void;
  readonly className?: string;
}

export function SelectField({ label, name, value, options, onChange, className = '' }: SelectFieldProps) {
  const id = useId();
  return (
    <div className={`flex min-w-0 flex-col ${className}`}>
      <label htmlFor={id} className="text-small text-soft">
        {label}
      </label>
      <select
        id={id}
        aria-label={name}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="min-h-8 w-full rounded-control border border-hair bg-paper px-2 py-1 pointer-coarse:min-h-11"
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </div>
  );
}
