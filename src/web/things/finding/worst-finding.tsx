import type { Finding } from '../../../core/findings/finding.ts';
import { Button } from '../../ui/button.tsx';
import { FINDING_EDGES, SEVERITY_TEXT, SEVERITY_WORDS } from '../../ui/finding-card.tsx';
import { useCarryOut, useMends } from './use-mends.ts';

/** The worst that is found at a station, in one line at its head, with the first remedy: as an act where it can be one. */
export function WorstFinding({ cameraId, findings }: { cameraId: string; findings: readonly Finding[] }) {
  const worst = findings.find(({ severity }) => severity !== 'note');
  const mends = useMends(cameraId, worst ? [worst.rule] : []);
  const carryOut = useCarryOut();
  if (!worst) return null;
  const [mend] = mends.get(worst.rule) ?? [];
  const [advice] = worst.do;
  return (
    <section
      aria-label="Worst finding"
      className={`mb-4 flex flex-wrap items-center gap-x-3 gap-y-1 border-l-[3px] bg-sheet py-1.5 pr-3 pl-3 ${FINDING_EDGES[worst.severity]}`}
    >
      <p className="min-w-0">
        <b className={`mr-1.5 ${SEVERITY_TEXT[worst.severity]}`}>{SEVERITY_WORDS[worst.severity]}</b>
        <b>{worst.title}.</b> <span className="text-soft">{worst.because}</span>
      </p>
      {mend ? (
        <Button className="ml-auto" onClick={() => carryOut(mend)}>
          {mend.text}
        </Button>
      ) : (
        advice && <p className="text-small">{advice}</p>
      )}
    </section>
  );
}
