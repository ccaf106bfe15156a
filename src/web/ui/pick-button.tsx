import type { ReactNode } from 'react';

interface PickButtonProps {
  readonly isPicked: boolean;
  readonly onPick: () => void;
  readonly children: ReactNode;
  readonly className?: string;
}

/** One of a few of which one holds, underlined while it does: a tool, a kind, what is looked at. */
export const PickButton = ({ isPicked, onPick, children, className = 'px-2' }: PickButtonProps) => (
  <button
    type="button"
    aria-pressed={isPicked}
    onClick={onPick}
    className={`inline-flex min-h-8 items-center gap-1.5 border-b-2 pointer-coarse:min-h-11 ${className} ${isPicked ? 'border-verdigris font-strong' : 'border-transparent text-soft hover:text-ink'}`}
  >
    {children}
  </button>
);
