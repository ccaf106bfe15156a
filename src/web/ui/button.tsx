import type { ButtonHTMLAttributes } from 'react';

type Kind = 'main' | 'plain' | 'quiet';

const LOOKS: Readonly<Record<Kind, string>> = {
  main: 'bg-verdigris text-on-verdigris border-verdigris font-strong',
  plain: 'bg-sheet text-ink border-hair hover:border-ink',
  quiet: 'bg-transparent text-verdigris border-transparent font-strong hover:underline',
};

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly kind?: Kind;
  /** Key that does the same, shown on the button. */
  readonly shortcut?: string;
  /** A sentence, which may break over lines. */
  readonly isSentence?: boolean;
}

export function Button({
  kind = 'plain',
  shortcut,
  isSentence = false,
  className = '',
  children,
  type = 'button',
  ...rest
}: ButtonProps) {
  return (
    <button
      type={type}
      data-main={kind === 'main' || undefined}
      aria-keyshortcuts={shortcut}
      className={`inline-flex min-h-7 items-center justify-center gap-2 rounded-control border px-2.5 py-1 disabled:cursor-not-allowed disabled:opacity-50 pointer-coarse:min-h-11 ${isSentence ? 'text-left' : 'whitespace-nowrap'} ${LOOKS[kind]} ${className}`}
      {...rest}
    >
      {children}
      {shortcut && (
        <span
          aria-hidden="true"
          className="hidden rounded-control border border-current px-1 font-mono text-[11px] leading-4 opacity-70 md:inline"
        >
          {shortcut}
        </span>
      )}
    </button>
  );
}
