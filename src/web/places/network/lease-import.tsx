import { proxy } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { clipText } from '../../../core/base/clip.ts';
import { sayMany } from '../../../core/base/say.ts';
import { type LeaseChange, leaseChanges } from '../../../core/evidence/lease-changes.ts';
import { type LeaseFile, MAX_LEASE_BYTES, tooLarge } from '../../../core/imports/lease-file.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { FileInput } from '../../ui/file-input.tsx';
import { Panel } from '../../ui/panel.tsx';
import type { ListWork } from '../../workers/list-worker.ts';
import { type Errand, listWorker } from '../../workers/workers.ts';

interface Taken {
  readonly name: string;
  readonly file: LeaseFile;
}

/** More rows than these are counted, and not drawn. */
const ROWS_SHOWN = 200;

/** What a router exports, looked over before anything is changed by it. */
export function LeaseImport() {
  const input = useRef<HTMLInputElement>(null);
  const [taken, setTaken] = useState<Taken | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [reading, setReading] = useState<{ readonly name: string; readonly share: number } | null>(null);
  const running = useRef<Errand<ListWork> | null>(null);
  useEffect(() => () => running.current?.end(), []);
  const cancel = (): void => {
    running.current?.end();
    running.current = null;
    setReading(null);
  };
  const read = async (file: File): Promise<void> => {
    setTaken(null);
    if (file.size > MAX_LEASE_BYTES) return setProblem(tooLarge(file.size).message);
    const errand = listWorker();
    running.current?.end();
    running.current = errand;
    setReading({ name: file.name, share: 0 });
    const onShare = proxy((share: number) => {
      if (running.current === errand) setReading({ name: file.name, share });
    });
    const found = await Promise.race([errand.work.readLeases(file, onShare), errand.failed]).catch(() => null);
    if (running.current !== errand) return; // given up, or another file was taken
    setReading(null);
    errand.end();
    if (!found)
      return setProblem(`${file.name} could not be read: it may have changed, or its card was removed. Open it again.`);
    if (!found.ok) return setProblem(`${file.name}: ${found.error.message}`);
    setProblem(null);
    setTaken({ name: file.name, file: found.value });
  };
  return (
    <Panel
      title="From the router"
      actions={<Button onClick={() => input.current?.click()}>Import leases or reservations</Button>}
    >
      <FileInput
        ref={input}
        label="File of leases or reservations"
        accept=".conf,.leases,.json,.csv,.txt,text/*"
        onFile={(file) => void read(file)}
      />
      {reading !== null && (
        <p role="status" className="flex flex-wrap items-center gap-2">
          Reading {reading.name} …
          <progress aria-label={`Reading ${reading.name}`} className="min-w-40" value={reading.share} />
          <Button onClick={cancel}>Cancel</Button>
        </p>
      )}
      {problem && (
        <p role="alert" className="border-l-[3px] border-brick pl-3">
          {problem}
        </p>
      )}
      {taken ? (
        <LeasePreview key={taken.name} taken={taken} onDone={() => setTaken(null)} />
      ) : (
        !problem && (
          <p className="text-soft">
            dnsmasq lines, host files and leases, Kea JSON and leases, or a table with columns for IP and MAC address.
            Changes are shown before they are made.
          </p>
        )
      )}
    </Panel>
  );
}

function LeasePreview({ taken: { name, file }, onDone }: { taken: Taken; onDone: () => void }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const changes = useMemo(() => leaseChanges(site, file.entries), [site, file]);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const wanted = changes.filter(({ entry, commands }) => commands.length > 0 && !left.has(entry.line));
  const strangers = changes.filter(({ camera }) => camera === null).length;
  const known = changes.filter(({ camera }) => camera !== null);
  const toggle = (line: number): void => {
    const next = new Set(left);
    if (!next.delete(line)) next.add(line);
    setLeft(next);
  };
  const take = (): void => {
    dispatch(
      commandIssued({
        kind: 'many',
        what: `${clipText(name, 60)} imported from the router: ${sayMany(wanted.length, 'camera')} changed`,
        commands: wanted.flatMap(({ commands }) => commands),
      }),
    );
    onDone();
  };
  return (
    <div>
      <p className="mb-2">
        <b>{name}</b>, {file.format}: {sayMany(file.entries.length, 'entry', 'entries')}, of which {strangers} of no
        camera of this site
        {file.leftOut > 0 && `; ${file.leftOut} more not listed`}
      </p>
      {file.problemCount > 0 && (
        <details className="mb-2 border-l-[3px] border-brass pl-3">
          <summary>{sayMany(file.problemCount, 'line')} could not be read</summary>
          <ul className="text-small">
            {file.problems.map(({ line, why }) => (
              <li key={line}>
                line {line}: {why}
              </li>
            ))}
          </ul>
        </details>
      )}
      <ul className="max-h-80 overflow-auto border border-hair">
        {known.slice(0, ROWS_SHOWN).map((change) => (
          <ChangeRow
            key={change.entry.line}
            change={change}
            isTaken={!left.has(change.entry.line)}
            onToggle={() => toggle(change.entry.line)}
          />
        ))}
        {known.length === 0 && <li className="px-2 py-1 text-soft">None of its entries is a camera of this site.</li>}
      </ul>
      <span className="mt-2 flex justify-end gap-2">
        <Button onClick={onDone}>Cancel</Button>
        <Button kind="main" disabled={wanted.length === 0} onClick={take}>
          Import {sayMany(wanted.length, 'change')}
        </Button>
      </span>
    </div>
  );
}

const BY_WORDS = { mac: 'by its MAC address', name: 'by its name', address: 'by its address alone' } as const;

function ChangeRow({ change, isTaken, onToggle }: { change: LeaseChange; isTaken: boolean; onToggle: () => void }) {
  const { entry, camera, by, said } = change;
  return (
    <li className="border-b border-grid px-2 py-1 last:border-b-0">
      <label className="grid grid-cols-[20px_1fr] gap-x-2 md:grid-cols-[20px_minmax(0,2fr)_minmax(0,3fr)_minmax(0,3fr)]">
        <input
          type="checkbox"
          className="mt-1 size-4 accent-verdigris"
          disabled={said.length === 0}
          checked={said.length > 0 && isTaken}
          onChange={onToggle}
        />
        <span>
          {camera?.name} <span className="block text-small text-soft">{by && BY_WORDS[by]}</span>
        </span>
        <span className="font-mono text-small max-md:col-start-2">
          {entry.mac} {entry.ip}
        </span>
        <span className="max-md:col-start-2">
          {said.length === 0 ? <span className="text-soft">is so already</span> : said.join(', ')}
        </span>
      </label>
    </li>
  );
}
