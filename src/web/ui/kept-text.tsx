import { type ReactNode, useState } from 'react';
import { TextField } from './text-field.tsx';

interface KeptTextProps {
  readonly label: string;
  /** What it is called where several of one label stand in a list. */
  readonly name?: string;
  readonly value: string;
  readonly isCode?: boolean;
  readonly inputMode?: 'text' | 'numeric';
  readonly maxLength?: number;
  readonly placeholder?: string;
  readonly hint?: ReactNode;
  readonly className?: string;
  /** What is wrong with a text, or likely so; what `stops` is not kept. */
  readonly remarkOf?: (text: string) => { readonly stops: boolean; readonly text: string } | null | undefined;
  readonly onKeep: (text: string) => void;
}

/** Of the name of a thing in a list. */
export const nameIsNeeded = (text: string): { readonly stops: true; readonly text: string } | null =>
  text === '' ? { stops: true, text: 'A name is needed.' } : null;

/** A short text, kept as one leaves it or presses Enter, without blanks at its ends. What cannot be kept stays as it was typed. */
export function KeptText({ name, value, isCode = true, remarkOf, onKeep, ...rest }: KeptTextProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = (typed ?? value).trim();
  const remark = remarkOf?.(text) ?? null;
  const keep = (): void => {
    if (remark?.stops) return;
    setTyped(null);
    if (text !== value) onKeep(text);
  };
  return (
    <TextField
      {...rest}
      {...(name === undefined ? {} : { 'aria-label': name })}
      isCode={isCode}
      value={typed ?? value}
      error={remark?.stops ? remark.text : null}
      warning={remark && !remark.stops ? remark.text : null}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
      }}
    />
  );
}
