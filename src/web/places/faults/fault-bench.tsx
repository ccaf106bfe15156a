import { useEffect, useRef, useState } from 'react';
import type { FaultToTake } from '../../../contract/fault-api.ts';
import { answerTitle, FINE, verdictOf } from '../../../core/gallery/answers.ts';
import type { Take } from '../../../core/gallery/score.ts';
import type { ProbeReport } from '../../../core/probe/probe-types.ts';
import { selectRun } from '../../store/probe-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { ConnectionLog } from '../../things/probe/index.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { FindingList } from '../../ui/finding-card.tsx';
import { Panel } from '../../ui/panel.tsx';
import { GuessList } from './guess-list.tsx';
import { runKeyOf, takeFault } from './take-fault.ts';

interface FaultBenchProps {
  readonly fault: FaultToTake;
  readonly onTaken: (take: Take) => void;
  readonly onNext: () => void;
}

/** One fault: what is known of it, its probe, a guess, and then what it was and by which experiment. */
export function FaultBench({ fault, onTaken, onNext }: FaultBenchProps) {
  const dispatch = useAppDispatch();
  const run = useAppSelector((root) => selectRun(root, runKeyOf(fault)));
  const [guess, setGuess] = useState<string | null>(null);
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);
  const probe = (): void => {
    setGuess(null);
    stop.current?.();
    stop.current = takeFault(fault, dispatch);
  };
  const report = run?.status === 'finished' ? run.report : null;
  const takeGuess = (answer: string): void => {
    if (!report) return;
    setGuess(answer);
    onTaken({ fault: fault.id, guess: answer, was: verdictOf(report) });
  };
  const isOpen = guess !== null && report !== null;
  return (
    <div className="flex min-w-0 flex-col gap-4">
      <Panel
        title={fault.name}
        actions={
          run?.status === 'running' ? (
            <Button onClick={() => stop.current?.()}>Cancel</Button>
          ) : (
            <Button kind={report ? 'plain' : 'main'} onClick={probe}>
              {report ? 'Probe it again' : 'Probe it'}
            </Button>
          )
        }
      >
        <p className="text-[17px]">“{fault.told}”</p>
        <p className="mt-2 font-mono break-all">{fault.url}</p>
        <p className="text-small text-soft">
          {fault.user === null
            ? 'No account was written down.'
            : `Account ${fault.user}, with the password that the customer gave.`}
          {fault.paths.length > 0 && ` Its model card lists ${fault.paths.join(', ')}.`}
        </p>
      </Panel>
      {run && <ConnectionLog run={run} isVerdictHidden={!isOpen} />}
      {report && guess === null && (
        <Panel title="What is wrong?" aside="read the connection log, then answer">
          <GuessList onGuess={takeGuess} />
        </Panel>
      )}
      {isOpen && <Outcome report={report} guess={guess} onNext={onNext} />}
    </div>
  );
}

function Outcome({ report, guess, onNext }: { report: ProbeReport; guess: string; onNext: () => void }) {
  const was = verdictOf(report);
  const isRight = guess === was;
  const experiments = report.diagnosis?.experiments ?? [];
  const told = useRef<HTMLHeadingElement>(null);
  useEffect(() => told.current?.focus(), []);
  return (
    <Panel
      title="Cause"
      actions={
        <Button kind="main" onClick={onNext}>
          Next fault
        </Button>
      }
    >
      <h3 ref={told} tabIndex={-1} className="flex items-center gap-2 text-[17px] outline-none">
        <Drop verdict={isRight ? 'ok' : 'will-not-work'} />
        {isRight ? `Right: ${answerTitle(was)}` : answerTitle(was)}
      </h3>
      {!isRight && <p className="text-soft">Your answer: {answerTitle(guess)}.</p>}
      {experiments.length > 0 && (
        <>
          <h4 className="mt-3 mb-1 text-small text-soft">Experiments</h4>
          <ol className="list-decimal pl-5">
            {experiments.map(({ did, told: said, decides }) => (
              <li key={did} className={decides ? 'font-strong' : ''}>
                {did.charAt(0).toUpperCase() + did.slice(1)}: {said}
                {decides && <span className="text-verdigris"> · this proves it</span>}
              </li>
            ))}
          </ol>
        </>
      )}
      <div className="mt-3">
        {report.findings.length > 0 ? (
          <FindingList findings={report.findings} />
        ) : (
          was === FINE && <p>Nothing to fix in this stream: that is worth knowing too.</p>
        )}
      </div>
    </Panel>
  );
}
