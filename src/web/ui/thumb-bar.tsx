import type { ReactNode } from 'react';

/**
 * The one act of a view. On a desk it stands where it belongs; on a phone it lies across the foot, where the thumb of the
 * hand that holds it reaches.
 */
export function ThumbBar({ children }: { children: ReactNode }) {
  return (
    <span className="no-print contents max-md:fixed max-md:inset-x-0 max-md:bottom-[calc(--spacing(14)+env(safe-area-inset-bottom)+1px)] max-md:z-10 max-md:flex max-md:border-t max-md:border-hair max-md:bg-sheet max-md:px-3.5 max-md:py-2 max-md:*:flex-1">
      {children}
    </span>
  );
}
