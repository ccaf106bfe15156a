import type { InputHTMLAttributes, ReactNode } from 'react';

interface CheckFieldProps extends Omit<InputHTMLAttributes<HTMLInputElement>, 'type'> {
  readonly label: ReactNode;
}

export function CheckField({ label, className = '', ...rest }: CheckFieldProps) {
  return (
    <label className={`flex min-h-8 items-center gap-2 pointer-coarse:min-h-11 ${className}`}>
      <input type="checkbox" className="size-4 shrink-0 accent-verdigris" {...rest} />
      <span>{label}</span>
    </label>
  );
}
