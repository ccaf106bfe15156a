import { Tabs } from 'radix-ui';
import type { ReactNode } from 'react';

interface TabStripProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly tabs: readonly { readonly value: string; readonly label: string }[];
  /** Acts on the sheets themselves, at the end of the strip. */
  readonly beside?: ReactNode;
  /** What belongs to the tab that is open. */
  readonly children: ReactNode;
}

/** A choice of which of a few sheets lies on top; with one, and nothing to do with it, there is no strip. */
export function TabStrip({ label, value, onChange, tabs, beside, children }: TabStripProps) {
  if (tabs.length < 2 && !beside) return children;
  return (
    <Tabs.Root value={value} onValueChange={onChange}>
      <div className="no-print mb-3 flex flex-wrap items-center gap-x-3 gap-y-1">
        <Tabs.List aria-label={label} className="flex flex-wrap gap-1">
          {tabs.map((tab) => (
            <Tabs.Trigger
              key={tab.value}
              value={tab.value}
              className="min-h-8 border-b-2 border-transparent px-3 text-soft hover:text-ink data-[state=active]:border-verdigris data-[state=active]:font-strong data-[state=active]:text-ink pointer-coarse:min-h-11"
            >
              {tab.label}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {beside}
      </div>
      <Tabs.Content value={value} tabIndex={-1}>
        {children}
      </Tabs.Content>
    </Tabs.Root>
  );
}
