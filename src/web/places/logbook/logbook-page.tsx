import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { sayMany } from '../../../core/base/say.ts';
import { type Entry, LOG_KIND_WORDS, LOG_KINDS, type LogKind } from '../../../core/document/chapters/journal/entry.ts';
import type { StationId } from '../../../core/stations/registry.ts';
import { STATION_PAGES } from '../../stations/registry.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { PickButton } from '../../ui/pick-button.tsx';
import { sayClock, sayDay } from '../../ui/say-when.ts';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { isSought, subjectOptions, subjectsAbout } from './log-subjects.ts';
import { NoteForm } from './note-form.tsx';

/** Of a station as its page says; the others stand in the text. */
const LOOKS: Readonly<Partial<Record<LogKind, string>>> = { site: 'text-soft', edit: 'text-soft', probe: 'text-blue' };
const lookOf = (kind: LogKind): string =>
  LOOKS[kind] ?? (kind in STATION_PAGES ? STATION_PAGES[kind as StationId].logLook : undefined) ?? 'text-ink';
/** Entries put on the page at once; a year's log is longer than anybody scrolls. */
const PAGE = 200;

/** Everything that was probed, changed and handed over, newest first, with its numbers. */
export function LogbookPage() {
  const site = useAppSelector(selectSite);
  const [kind, setKind] = useState<LogKind | 'all'>('all');
  const [shown, setShown] = useState(PAGE);
  const [search, setSearch] = useSearchParams();
  const about = search.get('about') ?? '';
  const [sought, setSought] = useState('');
  const [isWriting, setIsWriting] = useState(false);
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const subjects = about === '' ? null : subjectsAbout(site, about);
  const entries = site.journal
    .filter((entry) => (kind === 'all' || entry.kind === kind) && isSought(entry, subjects, words))
    .toReversed();
  const days = Map.groupBy(entries.slice(0, shown), (entry) => sayDay(entry.at));
  return (
    <>
      <header className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 tabIndex={-1} className="text-title outline-none">
          Logbook
        </h1>
        <p className="text-soft">{sayMany(entries.length, 'entry', 'entries')}</p>
        <Button kind="main" className="ml-auto" onClick={() => setIsWriting(true)}>
          Write a note
        </Button>
      </header>
      {isWriting && <NoteForm about={about} onDone={() => setIsWriting(false)} />}
      <div className="mb-3 flex flex-wrap items-end gap-x-4 gap-y-2">
        <SelectField
          label="Entries about"
          className="w-52"
          value={about}
          onChange={(value) => setSearch(value === '' ? {} : { about: value }, { replace: true })}
          options={[{ value: '', label: 'everything' }, ...subjectOptions(site, 'the site itself')]}
        />
        <TextField
          label="Text"
          type="search"
          className="w-52"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
        <fieldset aria-label="Show" className="flex flex-wrap gap-1">
          {(['all', ...LOG_KINDS] as const).map((value) => (
            <PickButton key={value} isPicked={kind === value} onPick={() => setKind(value)}>
              {value === 'all' ? 'Everything' : LOG_KIND_WORDS[value]}
            </PickButton>
          ))}
        </fieldset>
      </div>
      {entries.length === 0 && (
        <p className="border border-hair bg-sheet px-4 py-6 text-soft">No entries of this kind.</p>
      )}
      {[...days].map(([day, list]) => (
        <section key={day} className="mb-4 border border-hair bg-sheet">
          <h2 className="border-b border-hair px-4 py-1.5 text-small text-soft">{day}</h2>
          <ol>
            {list.map((entry) => (
              <LogRow key={entry.id} entry={entry} />
            ))}
          </ol>
        </section>
      ))}
      {entries.length > shown && (
        <Button onClick={() => setShown(shown + PAGE)}>Show {Math.min(PAGE, entries.length - shown)} older</Button>
      )}
    </>
  );
}

function LogRow({ entry }: { entry: Entry }) {
  return (
    <li className="grid grid-cols-[64px_1fr] gap-x-3 border-t border-grid px-4 py-1.5 first:border-t-0 md:grid-cols-[72px_84px_minmax(0,5fr)_minmax(0,6fr)]">
      <time dateTime={entry.at} className="font-mono text-small leading-5 text-soft">
        {sayClock(entry.at)}
      </time>
      <b className={`text-small leading-5 ${lookOf(entry.kind)}`}>{LOG_KIND_WORDS[entry.kind]}</b>
      <span className="col-span-2 md:col-span-1">{entry.text}</span>
      <dl className="col-span-2 flex flex-wrap gap-x-4 text-small md:col-span-1">
        {entry.refs.map(({ name, value }) => (
          <div key={name} className="inline-flex gap-1.5">
            <dt className="text-soft">{name}</dt>
            <dd className="font-mono break-all">{value}</dd>
          </div>
        ))}
      </dl>
    </li>
  );
}
