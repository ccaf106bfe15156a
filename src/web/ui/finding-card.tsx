import type { Finding, Severity } from '../../core/findings/finding.ts';
import { Button } from './button.tsx';

export const SEVERITY_WORDS: Readonly<Record<Severity, string>> = {
  stop: 'Stop',
  fix: 'Fix',
  caution: 'Caution',
  note: 'Note',
};
export const SEVERITY_TEXT: Readonly<Record<Severity, string>> = {
  stop: 'text-brick',
  fix: 'text-brass',
  caution: 'text-blue',
  note: 'text-soft',
};
export const FINDING_EDGES: Readonly<Record<Severity, string>> = {
  stop: 'border-brick',
  fix: 'border-brass',
  caution: 'border-blue',
  note: 'border-faint',
};

/** A rule's result beside what caused it: what is wrong, the evidence, what to do; why opens on demand. */
interface FindingCardProps<M extends { readonly text: string }> {
  readonly finding: Finding;
  /** What one touch carries out. */
  readonly mends?: readonly M[];
  readonly onMend?: (mend: M) => void;
}

export function FindingCard<M extends { readonly text: string }>({ finding, mends = [], onMend }: FindingCardProps<M>) {
  return (
    <article className={`border-l-[3px] py-0.5 pl-3 ${FINDING_EDGES[finding.severity]}`}>
      <h3 className="text-base">
        <span className={`mr-1.5 ${SEVERITY_TEXT[finding.severity]}`}>{SEVERITY_WORDS[finding.severity]}</span>
        {finding.title}
      </h3>
      <p className="text-small text-soft">{finding.because}</p>
      {mends.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-2">
          {mends.map((mend) => (
            <Button key={mend.text} isSentence className="text-small" onClick={() => onMend?.(mend)}>
              {mend.text}
            </Button>
          ))}
        </p>
      )}
      <ul className="mt-0.5 text-small">
        {finding.do.map((step) => (
          <li key={step}>
            <span aria-hidden="true" className="mr-1.5 text-verdigris">
              →
            </span>
            {step}
          </li>
        ))}
      </ul>
      <details className="text-small text-soft">
        <summary className="w-fit py-0.5 underline decoration-hair underline-offset-2">Why</summary>
        {finding.why}
      </details>
    </article>
  );
}

export function FindingList({ findings }: { findings: readonly Finding[] }) {
  return (
    <div className="flex flex-col gap-3">
      {findings.map((finding) => (
        <FindingCard key={finding.rule} finding={finding} />
      ))}
    </div>
  );
}
