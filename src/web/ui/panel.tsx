import type { ReactNode } from 'react';

interface PanelProps {
  readonly title: string;
  readonly aside?: ReactNode;
  readonly actions?: ReactNode;
  readonly children: ReactNode;
}

/** A working surface: a sheet with a small heading, a remark beside it and its actions at the right. */
export function Panel({ title, aside, actions, children }: PanelProps) {
  return (
    <section aria-label={title} className="border border-hair bg-sheet rounded-sheet px-3.5 py-3">
      <header className="mb-2 flex min-h-7 flex-wrap items-center gap-x-2.5 gap-y-1">
        <h2 className="text-small">{title}</h2>
        {aside && <span className="text-small text-soft">{aside}</span>}
        {actions && <span className="ml-auto flex flex-wrap gap-2">{actions}</span>}
      </header>
      {children}
    </section>
  );
}
