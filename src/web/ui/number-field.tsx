import { useState } from 'react';
import { TextField } from './text-field.tsx';
import { typedNumber } from './typed-number.ts';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number | null;
  readonly min: number;
  readonly max: number;
  /** It may be left empty; then it is not known. */
  readonly isOptional?: boolean;
  readonly hint?: string | undefined;
  readonly className?: string;
  readonly onKeep: (value: number | null) => void;
}

/** A number that is kept when one leaves its field; what cannot be is refused there, and the last good one still counts. */
export function NumberField({
  label,
  value,
  min,
  max,
  isOptional = false,
  hint,
  className = '',
  onKeep,
}: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? (value === null ? '' : String(Number(value.toFixed(4))));
  const parsed = typedNumber(text) ?? null;
  const error =
    parsed === null
      ? isOptional
        ? null
        : 'A number is needed.'
      : Number.isNaN(parsed)
        ? 'A number, such as 12.5.'
        : parsed < min || parsed > max
          ? `${min} to ${max}, not ${parsed}.`
          : null;
  const keep = (): void => {
    if (error !== null) return;
    setTyped(null);
    if (parsed !== value) onKeep(parsed);
  };
  return (
    <TextField
      label={label}
      className={className}
      inputMode="decimal"
      value={text}
      error={error}
      hint={hint}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
      }}
    />
  );
}
