import { useEffect, useState } from 'react';
import type { FaultToTake } from '../../../contract/fault-api.ts';
import { sayMany } from '../../../core/base/say.ts';
import type { Verdict } from '../../../core/base/verdict.ts';
import type { Take } from '../../../core/gallery/score.ts';
import { fetchFaults } from '../../api/faults.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { FaultBench } from './fault-bench.tsx';
import { ScorePanel } from './score-panel.tsx';
import { useTakes } from './takes.ts';

type Loaded =
  | { readonly status: 'loading' }
  | { readonly status: 'there'; readonly faults: readonly FaultToTake[] }
  | { readonly status: 'none'; readonly message: string };

function useFaults(): readonly [Loaded, () => void] {
  const [loaded, setLoaded] = useState<Loaded>({ status: 'loading' });
  const [attempt, setAttempt] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another attempt loads anew
  useEffect(() => {
    let isHere = true;
    fetchFaults().then(
      ({ faults }) => isHere && setLoaded({ status: 'there', faults }),
      (error: unknown) =>
        isHere &&
        setLoaded({ status: 'none', message: error instanceof Error ? error.message : 'They could not be loaded.' }),
    );
    return () => {
      isHere = false;
    };
  }, [attempt]);
  return [loaded, () => setAttempt(attempt + 1)];
}

const lastTake = (takes: readonly Take[], { id }: FaultToTake): Take | undefined =>
  takes.findLast(({ fault }) => fault === id);
const verdictOfTake = (take: Take | undefined): Verdict =>
  take === undefined ? 'unknown' : take.guess === take.was ? 'ok' : 'will-not-work';
const WORDS: Readonly<Record<Verdict, string>> = {
  ok: 'right',
  tight: 'right',
  'will-not-work': 'wrong',
  unknown: 'not tried yet',
};

/** The fault gallery of the demo: devices that fail, each in one way, to be probed, guessed and understood. */
export function FaultsPage() {
  const [loaded, again] = useFaults();
  const { takes, add, set } = useTakes();
  const [chosen, setChosen] = useState<string | null>(null);
  if (loaded.status === 'none')
    return (
      <>
        <h1 className="text-title">Fault gallery</h1>
        <p role="alert" className="mt-3 max-w-[60ch] border-l-[3px] border-brick pl-3">
          {loaded.message} The gallery is part of the demo: it starts with{' '}
          <code className="font-mono">npm run demo</code>.
        </p>
        <Button className="mt-3" onClick={again}>
          Check again
        </Button>
      </>
    );
  if (loaded.status === 'loading' || takes === null) return null;
  const { faults } = loaded;
  const fault = faults.find(({ id }) => id === chosen) ?? null;
  const next = (): void => {
    const at = faults.findIndex(({ id }) => id === chosen);
    const rest = [...faults.slice(at + 1), ...faults.slice(0, at + 1)];
    setChosen((rest.find((one) => !lastTake(takes, one)) ?? rest[0])?.id ?? null);
  };
  const takenCount = faults.filter((one) => lastTake(takes, one)).length;
  return (
    <>
      <header className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-title">Fault gallery</h1>
        <p className="text-soft">
          {sayMany(faults.length, 'simulated device')}, each with one fault or none; {takenCount} answered. Probe one,
          read its connection log, name the fault.
        </p>
      </header>
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,4fr)_minmax(0,8fr)]">
        <div className={`flex min-w-0 flex-col gap-4 ${fault ? 'max-lg:order-2' : ''}`}>
          <ul aria-label="Devices" className="max-h-[60vh] overflow-y-auto rounded-sheet border border-hair bg-sheet">
            {faults.map((one) => {
              const verdict = verdictOfTake(lastTake(takes, one));
              return (
                <li key={one.id} className="border-b border-grid last:border-b-0">
                  <button
                    type="button"
                    aria-current={one.id === chosen}
                    onClick={() => setChosen(one.id)}
                    className={`flex w-full items-center gap-2.5 px-3 py-1.5 text-left ${one.id === chosen ? 'bg-verdigris-wash' : 'hover:bg-paper'}`}
                  >
                    <Drop verdict={verdict} label={WORDS[verdict]} size={18} />
                    <span className="min-w-0">
                      <span className="font-strong">{one.name}</span>
                      <span className="block text-small text-soft">{one.told}</span>
                    </span>
                  </button>
                </li>
              );
            })}
          </ul>
          <ScorePanel takes={takes} onSet={set} />
        </div>
        {fault ? (
          <FaultBench key={fault.id} fault={fault} onTaken={add} onNext={next} />
        ) : (
          <p className="rounded-sheet border border-dashed border-hair p-6 text-soft">
            Choose a device. You are told what its owner says and what was written down, as on the day you are called.
            The probe runs as on a site, and nothing of it is saved in the site.
          </p>
        )}
      </div>
    </>
  );
}
