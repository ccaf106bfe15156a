import type { ReactNode } from 'react';
import type { Finding } from '../../../core/findings/finding.ts';
import { Button } from '../../ui/button.tsx';
import { FINDING_EDGES, SEVERITY_TEXT, SEVERITY_WORDS } from '../../ui/finding-card.tsx';
import { useShortcut } from '../../ui/shortcut.ts';
import { useCarryOut, useMends } from './use-mends.ts';

interface WorstFindingProps {
  readonly cameraId: string;
  readonly findings: readonly Finding[];
  /** What the line says while nothing was found. */
  readonly otherwise: ReactNode;
}

/**
 * The worst that is found at a station, in one line at its head, with the first remedy: as an act where it can be one. The
 * line keeps its height when it has nothing to say: what stands below must not move from under a finger.
 */
export function WorstFinding({ cameraId, findings, otherwise }: WorstFindingProps) {
  const worst = findings.find(({ severity }) => severity !== 'note');
  const [mend] = useMends(cameraId, worst ? [worst.rule] : []).get(worst?.rule ?? '') ?? [];
  const carryOut = useCarryOut();
  useShortcut('m', () => mend && carryOut(mend));
  return (
    <section
      aria-label="Worst finding"
      className={`mb-4 flex min-h-11 flex-wrap items-center gap-x-3 gap-y-1 border-l-[3px] bg-sheet py-1 pr-2 pl-3 md:flex-nowrap ${worst ? FINDING_EDGES[worst.severity] : 'border-hair'}`}
    >
      {worst ? (
        <p className="min-w-0 md:flex-1 md:truncate" title={`${worst.title}. ${worst.because}`}>
          <b className={`mr-1.5 ${SEVERITY_TEXT[worst.severity]}`}>{SEVERITY_WORDS[worst.severity]}</b>
          <b>{worst.title}</b> <span className="text-soft">{worst.because}</span>
        </p>
      ) : (
        otherwise
      )}
      {worst && !mend && <p className="text-small md:shrink-0">{worst.do[0]}</p>}
      {mend && (
        <Button shortcut="M" isSentence className="shrink-0" onClick={() => carryOut(mend)}>
          {mend.text}
        </Button>
      )}
    </section>
  );
}
