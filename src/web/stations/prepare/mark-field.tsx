import { useState } from 'react';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { TextField } from '../../ui/text-field.tsx';

/** A short text, kept as one leaves it. */
export function MarkField({
  label,
  value,
  max = TEXT_LIMITS.label,
  onKeep,
}: {
  label: string;
  value: string;
  max?: number;
  onKeep: (text: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = (): void => {
    setTyped(null);
    const text = (typed ?? value).trim();
    if (text !== value) onKeep(text);
  };
  return (
    <TextField
      label={label}
      isCode
      maxLength={max}
      value={typed ?? value}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}
