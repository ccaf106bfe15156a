import { Tooltip } from 'radix-ui';
import type { KnownHow } from '../../core/document/chapters/journal/entry.ts';

const MARKS: Readonly<Record<KnownHow, { letter: string; meaning: string; className: string }>> = {
  assumed: { letter: 'A', meaning: 'assumed', className: 'border-dashed border-soft text-soft' },
  planned: { letter: 'P', meaning: 'planned', className: 'border-soft text-soft' },
  declared: { letter: 'D', meaning: 'declared by the camera', className: 'border-blue text-blue' },
  measured: { letter: 'M', meaning: 'measured here', className: 'border-verdigris bg-verdigris text-on-verdigris' },
  confirmed: { letter: 'C', meaning: 'confirmed by hand', className: 'border-ink bg-ink text-sheet' },
};

/** How a number is known: a letter in a small round mark, its meaning on hover, focus and to a screen reader. */
export function KnownHowMark({ how, detail }: { how: KnownHow; detail?: string | undefined }) {
  const { letter, meaning, className } = MARKS[how];
  const words = detail ? `${meaning}, ${detail}` : meaning;
  return (
    <Tooltip.Provider delayDuration={200}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>
          <span
            role="img"
            aria-label={words}
            className={`inline-flex size-[15px] shrink-0 items-center justify-center rounded-full border font-mono text-[9.5px] leading-none font-strong ${className}`}
          >
            {letter}
          </span>
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content sideOffset={4} className="z-20 border border-ink bg-sheet px-2 py-1 text-small text-ink">
            {words}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
