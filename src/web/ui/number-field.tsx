import { useState } from 'react';
import { type Range, rangeProblem } from '../../core/base/range.ts';
import { TextField } from './text-field.tsx';
import { typedNumber } from './typed-number.ts';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number | null;
  readonly range: Range;
  /** It may be left empty; then it is not known. */
  readonly isOptional?: boolean;
  readonly hint?: string | undefined;
  /** Digits behind the point that mean something. */
  readonly digits?: number;
  readonly className?: string;
  readonly onKeep: (value: number | null) => void;
}

/** A number that is kept when one leaves its field; what cannot be is refused there, and the last good one still counts. */
export function NumberField({
  label,
  value,
  range,
  isOptional = false,
  hint,
  digits = 4,
  className = '',
  onKeep,
}: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? (value === null ? '' : String(Number(value.toFixed(digits))));
  const parsed = typedNumber(text, range.unit) ?? null;
  const missing = isOptional ? null : 'A number is needed.';
  const error =
    parsed === null ? missing : Number.isNaN(parsed) ? 'A number, such as 12.5.' : rangeProblem(range, parsed);
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
