import { useEffect, useState } from 'react';
import { sayMany, sayMs, sayRate } from '../../../core/base/say.ts';
import { decidingEntry, writeTape } from '../../../core/probe/connection-log-text.ts';
import type { ProbeReport } from '../../../core/probe/probe-types.ts';
import { PROBE_STEPS, type ProbeStepName, type TapeEntry } from '../../../core/rtsp/exchange-types.ts';
import { explainEntry } from '../../../core/rtsp/message-words.ts';
import type { ProbeRun } from '../../store/probe-slice.ts';
import { selectServer } from '../../store/server-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { download, fileNameOf } from '../../ui/download.ts';
import { Panel } from '../../ui/panel.tsx';

const TICKS_MS = [1, 10, 100, 1000, 3000];
/** The scale reaches at least this far, so that it stands still while a probe grows. */
const MIN_SCALE_MS = 6000;

/** Place of a time on a scale that shows a millisecond and seconds alike. */
const placeOf = (ms: number, scaleMs: number): number =>
  (Math.log10(1 + Math.max(0, ms)) / Math.log10(1 + scaleMs)) * 100;

const STEP_NAMES: Readonly<Partial<Record<ProbeStepName, string>>> = {
  'first-packet': 'first packet',
  'first-keyframe': 'first key frame',
};
const nameOf = (step: ProbeStepName): string => STEP_NAMES[step] ?? step;

interface Row {
  readonly name: ProbeStepName;
  readonly startMs: number;
  readonly endMs: number;
  readonly status: number | null;
  readonly note: string | null;
  readonly state: 'open' | 'ok' | 'failed' | 'asked';
}

/** Time since the probe began, while it runs. */
function useElapsedMs(run: ProbeRun): number {
  const [now, setNow] = useState(0);
  const isRunning = run.status === 'running';
  useEffect(() => {
    if (!isRunning) return;
    const timer = setInterval(() => setNow(performance.now() - run.startedAtMs), 100);
    return () => clearInterval(timer);
  }, [isRunning, run.startedAtMs]);
  return now;
}

function rowsOf(run: ProbeRun, elapsedMs: number): readonly Row[] {
  const done: Row[] = run.steps.map((step) => ({
    ...step,
    endMs: step.startMs + step.durationMs,
    state: step.ok ? (step.status === 401 ? 'asked' : 'ok') : 'failed',
  }));
  const open: Row[] =
    run.status === 'running'
      ? run.open.map(({ name, startMs }) => ({
          name,
          startMs,
          endMs: Math.max(startMs, elapsedMs),
          status: null,
          note: null,
          state: 'open',
        }))
      : [];
  return [...done, ...open].sort((a, b) => PROBE_STEPS.indexOf(a.name) - PROBE_STEPS.indexOf(b.name));
}

const BAR: Readonly<Record<Row['state'], string>> = {
  ok: 'bg-verdigris',
  asked: 'bg-brass',
  failed: 'bg-brick',
  open: 'bg-faint',
};

function summaryOf(run: ProbeRun): string {
  const end = Math.max(0, ...run.steps.map((step) => step.startMs + step.durationMs));
  switch (run.status) {
    case 'running':
      return run.trials > 0 ? `failed; finding the cause, experiment ${run.trials}` : 'in progress';
    case 'cancelled':
      return 'cancelled';
    case 'broken':
      return 'stopped';
    case 'finished': {
      const trips = run.steps.filter((step) => step.status !== null && step.name !== 'teardown').length;
      return `${sayMs(end)}, ${sayMany(trips, 'round trip')}${run.report.transport ? `, ${run.report.transport.toUpperCase()}` : ''}`;
    }
  }
}

/** The probe as it happens: each step a bar on one scale of time, each opening to what was said. */
export function ConnectionLog({ run, isVerdictHidden = false }: { run: ProbeRun; isVerdictHidden?: boolean }) {
  const elapsedMs = useElapsedMs(run);
  const { status } = useAppSelector(selectServer);
  const [opened, setOpened] = useState<ReadonlySet<ProbeStepName>>(new Set());
  const rows = rowsOf(run, elapsedMs);
  const scaleMs = Math.max(MIN_SCALE_MS, ...rows.map((row) => row.endMs));
  const decides = run.status === 'finished' && !isVerdictHidden ? decidingEntry(run.report, run.tape) : null;
  const isAllOpen = rows.length > 0 && rows.every(({ name }) => opened.has(name));
  const toggle = (name: ProbeStepName): void => {
    const next = new Set(opened);
    if (!next.delete(name)) next.add(name);
    setOpened(next);
  };
  return (
    <Panel
      title="Connection log"
      aside={<span role="status">{summaryOf(run)}</span>}
      actions={
        <>
          {run.status === 'finished' && !isVerdictHidden && (
            <Button kind="quiet" onClick={() => saveTape(run)}>
              Save as text
            </Button>
          )}
          <Button onClick={() => setOpened(isAllOpen ? new Set() : new Set(rows.map(({ name }) => name)))}>
            {isAllOpen ? 'Close the exchange' : 'Open the exchange'}
          </Button>
        </>
      }
    >
      <div className="relative">
        <div
          aria-hidden="true"
          className="pointer-events-none absolute inset-y-0 right-[76px] left-[124px] hidden md:right-[252px] md:left-[152px] md:block"
        >
          {TICKS_MS.map((tick) => (
            <span
              key={tick}
              className="absolute inset-y-0 border-l border-grid"
              style={{ left: `${placeOf(tick, scaleMs)}%` }}
            >
              <span className="absolute -top-0.5 -translate-x-1/2 bg-sheet px-0.5 whitespace-nowrap text-[11.5px] leading-4 text-soft">
                {tick < 1000 ? `${tick} ms` : `${tick / 1000} s`}
              </span>
            </span>
          ))}
        </div>
        <ol className="relative md:pt-5">
          {rows.map((row) => (
            <TapeRow
              key={row.name}
              row={row}
              scaleMs={scaleMs}
              isOpen={opened.has(row.name)}
              onToggle={() => toggle(row.name)}
              entries={run.tape}
              decides={decides}
            />
          ))}
        </ol>
      </div>
      {run.status === 'finished' && <RateStrip report={run.report} />}
      {run.status === 'broken' && (
        <p role="alert" className="mt-2 border-l-[3px] border-brick pl-3">
          {run.message}
          {status === 'up' && ' The server answers again.'}
        </p>
      )}
      {run.status === 'cancelled' && (
        <p className="mt-2 text-small text-soft">Cancelled; the session was ended and nothing was recorded.</p>
      )}
    </Panel>
  );
}

interface TapeRowProps {
  readonly row: Row;
  readonly scaleMs: number;
  readonly isOpen: boolean;
  readonly onToggle: () => void;
  readonly entries: readonly TapeEntry[];
  readonly decides: TapeEntry | null;
}

function TapeRow({ row, scaleMs, isOpen, onToggle, entries, decides }: TapeRowProps) {
  const left = placeOf(row.startMs, scaleMs);
  const width = Math.max(0.6, placeOf(row.endMs, scaleMs) - left);
  const tookMs = row.endMs - row.startMs;
  const own = entries.filter((entry) => entry.step === row.name);
  const mark = row.state === 'failed' ? 'text-brick' : row.state === 'asked' ? 'text-brass' : 'text-soft';
  return (
    <li>
      <button
        type="button"
        aria-expanded={isOpen}
        onClick={onToggle}
        className={`grid w-full grid-cols-[104px_30px_1fr_64px] items-center gap-1.5 text-left md:grid-cols-[108px_32px_1fr_172px_68px] ${isOpen ? 'bg-verdigris-wash' : 'hover:bg-paper'} pointer-coarse:min-h-9`}
      >
        <span className={`truncate py-0.5 pl-1 ${row.state === 'failed' ? 'font-strong text-brick' : ''}`}>
          {nameOf(row.name)}
        </span>
        <span className={`font-mono text-small ${mark}`}>{row.status ?? ''}</span>
        <span className="relative block h-3">
          <span
            className={`absolute inset-y-0 rounded-[1px] ${BAR[row.state]}`}
            style={{ left: `${left}%`, width: `${Math.min(width, 100 - left)}%` }}
          />
        </span>
        <span
          className={`hidden truncate text-small md:block ${row.state === 'failed' ? 'text-brick' : 'text-soft'}`}
          title={row.note ?? undefined}
        >
          {row.note}
        </span>
        <span className="pr-1 text-right font-mono text-small">{sayMs(tookMs)}</span>
      </button>
      {isOpen && <Exchange entries={own} note={row.note} decides={decides} />}
    </li>
  );
}

const STRIP_PX = 22;

/** The rate of the picture second by second: a bar for each, all against the highest. */
function RateStrip({ report }: { report: ProbeReport }) {
  const rates = report.media.find(({ kind }) => kind === 'video')?.measured?.kbpsBySecond ?? [];
  const most = Math.max(...rates);
  if (rates.length < 2 || most <= 0) return null;
  return (
    <p className="mt-2 flex items-end gap-2 text-small text-soft">
      bit rate by the second
      <span
        role="img"
        aria-label={`Bit rate by the second: ${rates.map(sayRate).join(', ')}`}
        className="flex items-end gap-px border-b border-hair"
      >
        {rates.map((kbps, second) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: a second is its place
            key={second}
            title={`second ${second + 1}: ${sayRate(kbps)}`}
            className="block w-2.5 bg-verdigris"
            style={{ height: `${Math.max(1, (STRIP_PX * kbps) / most)}px` }}
          />
        ))}
      </span>
      up to {sayRate(most)}
    </p>
  );
}

const ARROWS: Readonly<Record<TapeEntry['direction'], { sign: string; word: string; className: string }>> = {
  sent: { sign: '→', word: 'sent', className: 'border-verdigris' },
  received: { sign: '←', word: 'received', className: 'border-blue' },
  remark: { sign: '·', word: 'remark', className: 'border-faint' },
};

/** For the support desk of whoever made it. */
function saveTape({ report, tape }: Extract<ProbeRun, { status: 'finished' }>): void {
  const now = new Date();
  const name = `probe-${fileNameOf(report.target.host)}-${now.toISOString().slice(0, 16).replace(':', '')}.txt`;
  download(name, 'text/plain', writeTape(report, tape, now.toISOString()));
}

interface ExchangeProps {
  readonly entries: readonly TapeEntry[];
  readonly note: string | null;
  readonly decides: TapeEntry | null;
}

function Exchange({ entries, note, decides }: ExchangeProps) {
  if (entries.length === 0)
    return <p className="px-1 py-1.5 text-small text-soft">{note ?? 'Nothing was sent in this step.'}</p>;
  return (
    <div className="flex flex-col gap-1.5 px-1 py-2">
      {entries.map((entry, index) => {
        const { sign, word, className } = ARROWS[entry.direction];
        return (
          // The tape only grows, so a line's place is its identity.
          // biome-ignore lint/suspicious/noArrayIndexKey: see above
          <div key={index} className={`border-l-2 pl-2 ${entry === decides ? 'border-brick' : className}`}>
            <p className="text-small text-soft">
              <span aria-hidden="true">{sign} </span>
              {word} at {sayMs(entry.atMs)}
              {entry === decides && <b className="text-brick"> · this decides it</b>}
            </p>
            <Lines entry={entry} />
          </div>
        );
      })}
    </div>
  );
}

/** What crossed the wire, and beside each line what it says. */
function Lines({ entry }: { entry: TapeEntry }) {
  return (
    <ul className="text-small leading-[17px]">
      {explainEntry(entry).map(({ text, words }, at) => (
        <li
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place
          key={at}
          className="grid gap-x-4 md:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
        >
          <span className={`font-mono whitespace-pre-wrap break-all ${words === null ? 'md:col-span-2' : ''}`}>
            {text || '\u00a0'}
          </span>
          {words !== null && <span className="text-soft max-md:mb-1">{words}</span>}
        </li>
      ))}
    </ul>
  );
}
