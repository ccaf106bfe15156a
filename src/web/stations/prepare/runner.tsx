import { useState } from 'react';
import type { ReflashGuide } from '../../../core/firmware/guide.ts';
import { DARK } from '../../../core/firmware/led.ts';
import { ENDS, MOST_ATTEMPTS, type Run, type Signal, turnsAtMs, waitIn } from '../../../core/firmware/procedure.ts';
import { type Answer, CAUSE_WORDS, STEP_WORDS, sayWait, WAY } from '../../../core/firmware/procedure-words.ts';
import type { ToldStep } from '../../../core/stations/prepare/index.ts';
import { CheckField } from '../../ui/check-field.tsx';
import { DROP_PATH } from '../../ui/drop.tsx';
import { LedScore } from '../../ui/led-score.tsx';
import { sayClock } from '../../ui/say-when.ts';
import { useLitScreen, useTurnCall } from './use-turn-call.ts';

interface RunnerProps {
  readonly run: Run;
  readonly steps: readonly ToldStep[];
  readonly guide: ReflashGuide;
  /** The time that the run goes by: real, or that of a rehearsal. */
  readonly now: number;
  /** It calls nobody: a rehearsal, whose time is not the real one. */
  readonly isQuiet?: boolean;
  readonly onTell: (signal: Signal) => void;
}

/**
 * A strip of paper: what is done is folded away with its time, the present step is large, what follows is seen edge on.
 * One hand, one thumb; “what do you see?” is answered by the score that looks like it.
 */
export function Runner({ run, steps, guide, now, isQuiet = false, onTell }: RunnerProps) {
  const [isLoud, setIsLoud] = useState(true);
  const elapsedS = Math.max(0, (now - run.sinceMs) / 1000);
  const { title, do: instruct, answers } = STEP_WORDS[run.phase];
  const wait = waitIn(run.phase, guide);
  const isOver = ENDS.has(run.phase);
  const turnMs = turnsAtMs(run.phase, guide);
  const { prime } = useTurnCall(turnMs === null || isOver ? null : run.sinceMs + turnMs, isLoud && !isQuiet);
  useLitScreen(!isOver && !isQuiet);
  const tell = (signal: Signal): void => {
    prime();
    onTell(signal);
  };
  const isTooEarly = ({ signal }: Answer): boolean =>
    run.phase === 'power-off' && signal === 'next' && elapsedS < guide.powerOffS;
  const shown = answers.filter(
    ({ isLate, isLast }) => (!isLate || elapsedS >= guide.patienceS) && (!isLast || run.cause !== null),
  );
  const seen = shown.filter(({ lamp }) => lamp !== undefined);
  const said = shown.filter(({ lamp }) => lamp === undefined);
  const at = WAY.indexOf(run.phase);
  const next = at < 0 ? [] : WAY.slice(at + 1, at + 4);
  return (
    <div className="mx-auto flex w-full max-w-[560px] flex-col">
      <ol aria-label="Steps done" className="text-small text-soft">
        {steps
          .slice(0, -1)
          .slice(-3)
          .map((step, place, list) => (
            <li key={`${step.atMs} ${step.to}`} className="flex gap-3 border-x border-t border-hair bg-paper px-3 py-1">
              <span className="font-mono">
                {isQuiet ? sayCount(step.atMs / 1000) : sayClock(new Date(step.atMs).toISOString())}
              </span>
              <span className="min-w-0 flex-1 truncate">{STEP_WORDS[step.to].title}</span>
              <span className="font-mono">{sayTook(step, list[place + 1] ?? steps.at(-1))}</span>
            </li>
          ))}
      </ol>
      <section
        aria-label="Step"
        className={`border border-ink bg-sheet px-4 py-4 ${run.phase === 'writing' ? 'border-l-[6px] border-l-brick' : ''}`}
      >
        <p className="text-small text-soft">
          {at >= 0 ? `Step ${at + 1} of ${WAY.length}` : isOver ? 'End' : 'Something else happened'}
          {run.direction === 'back' ? ', going back' : ''}
          {run.attempt > 1 ? `, attempt ${run.attempt} of ${MOST_ATTEMPTS}` : ''}
        </p>
        <h2 className="text-[26px] leading-8 font-strong">{title}</h2>
        {run.cause && (
          <div role="alert" className="mt-2 border-l-[3px] border-brick bg-brick-wash px-3 py-2">
            <b>{CAUSE_WORDS[run.cause].title}</b>
            <ul className="list-disc pl-4">
              {CAUSE_WORDS[run.cause].do.map((text) => (
                <li key={text}>{text}</li>
              ))}
            </ul>
          </div>
        )}
        <p className="mt-2 text-[19px] leading-7">{instruct(guide, run.direction)}</p>
        {wait && <Vessel elapsedS={elapsedS} leastS={wait.leastS} mostS={wait.mostS} />}
        {seen.length > 0 && (
          <div className="mt-3 flex flex-col gap-2">
            {seen.map((answer) => (
              <button
                key={answer.signal}
                type="button"
                onClick={() => tell(answer.signal)}
                className={`flex min-h-16 items-center gap-3 rounded-control border bg-paper px-3 py-1.5 text-left hover:border-ink ${answer.isExpected ? 'border-verdigris' : 'border-hair'}`}
              >
                <span className="w-36 shrink-0">
                  <LedScore isBare sign={answer.lamp === 'dark' || !answer.lamp ? DARK : guide.lamps[answer.lamp]} />
                </span>
                <span className="text-[16px] leading-5">{answer.says}</span>
              </button>
            ))}
          </div>
        )}
        <div className="mt-3 flex flex-col gap-2">
          {said.map((answer) => (
            <button
              key={answer.signal}
              type="button"
              data-main={answer.isExpected || undefined}
              disabled={isTooEarly(answer)}
              onClick={() => tell(answer.signal)}
              className={`min-h-12 rounded-control border px-3 py-2 text-[17px] disabled:opacity-50 ${
                answer.isExpected
                  ? 'min-h-14 border-verdigris bg-verdigris font-strong text-on-verdigris'
                  : 'border-hair bg-sheet'
              }`}
            >
              {isTooEarly(answer) ? `In ${Math.ceil(guide.powerOffS - elapsedS)} s` : answer.says}
            </button>
          ))}
        </div>
        {!isOver && !isQuiet && (
          <CheckField
            label="alert by sound and vibration"
            className="mt-2 text-small text-soft"
            checked={isLoud}
            onChange={(event) => setIsLoud(event.target.checked)}
          />
        )}
      </section>
      <ol aria-label="Steps to come" className="text-small text-soft">
        {next.map((phase) => (
          <li key={phase} className="border-x border-b border-hair bg-paper px-3 py-0.5">
            {STEP_WORDS[phase].title}
          </li>
        ))}
      </ol>
    </div>
  );
}

const sayTook = ({ atMs }: ToldStep, next: ToldStep | undefined): string =>
  next ? sayWait(Math.round((next.atMs - atMs) / 1000)) : '';

/** The time of a step as a vessel that fills: full when it turns, and said in words beside it. */
function Vessel({ elapsedS, leastS, mostS }: { elapsedS: number; leastS: number; mostS: number }) {
  const goalS = leastS > 0 && elapsedS < leastS ? leastS : mostS;
  const share = Math.min(1, goalS > 0 ? elapsedS / goalS : 1);
  const leftS = Math.ceil(goalS - elapsedS);
  const isLate = elapsedS > mostS + 0.5;
  const top = 9 - 18 * share;
  return (
    <p className="mt-3 flex items-center gap-4" role="timer">
      <svg width="54" height="66" viewBox="-9 -11 18 22" aria-hidden="true">
        <clipPath id="vessel">
          <rect x="-9" y={top} width="18" height={22} />
        </clipPath>
        <path d={DROP_PATH} fill="var(--paper)" stroke={isLate ? 'var(--brass)' : 'var(--verdigris)'} />
        <path d={DROP_PATH} fill={isLate ? 'var(--brass)' : 'var(--verdigris)'} clipPath="url(#vessel)" />
      </svg>
      <span>
        <b className="block font-mono text-[30px] leading-9">
          {isLate ? `+${sayCount(elapsedS - mostS)}` : sayCount(leftS)}
        </b>
        <span className="text-soft">
          {isLate
            ? 'longer than usual'
            : goalS === leastS && leastS > 0 && leastS !== mostS
              ? 'at least'
              : 'left, at most'}
        </span>
      </span>
    </p>
  );
}

/** “6 s”, “4:05”. */
function sayCount(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
