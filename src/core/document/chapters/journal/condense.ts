import { LIST_LIMITS } from '../../../base/limits.ts';
import { pushTo } from '../../../base/push-to.ts';
import { sayMany } from '../../../base/say.ts';
import type { PayloadKind, PayloadOf } from '../../payload/payload.ts';
import type { Entry } from './entry.ts';

// The journal only grows, and years of watching must open as fast as a day: of each stream the last probe stays whole, of
// older ones the first, and of each day and later of each month the worst, with what is worth comparing. What a
// person confirmed or took back stays, and so do the latest words; one line tells how many went before.

/** It is looked at once in so many entries: each look costs the whole journal. */
const EVERY = 500;
/** A journal below this is left alone. */
const SMALL = 3000;
/** Probes of one stream that stay whole, beside the last that worked: every station judges by these. */
const WHOLE = 1;
const DAY_MS = 86_400_000;
/** Older than this, a month keeps what a day kept before. */
const BY_DAY_MS = 7 * DAY_MS;
/** Words without facts that stay. */
const LATEST_WORDS = 2000;

/** What of an old probe is worth comparing with a new one. */
const KEPT_OF_OLD: ReadonlySet<string> = new Set(['bitrateKbps', 'lossRatio']);

type EntryOf<K extends PayloadKind> = Entry & { readonly payload: PayloadOf<K> };
const isSweep = (entry: Entry): entry is EntryOf<'sweep'> => entry.payload?.kind === 'sweep';
const isProbe = (entry: Entry): entry is EntryOf<'probe'> => entry.payload?.kind === 'probe';

const BADNESS = { ok: 0, warn: 1, fail: 2 } as const;
/** The larger, the worse: what failed before what lost packets. */
function badness({ facts, payload }: EntryOf<'probe'>): number {
  const lossRatio = facts.find(({ quantity }) => quantity === 'lossRatio')?.value;
  return BADNESS[payload.verdict] + (typeof lossRatio === 'number' ? lossRatio : 0);
}

/** The day, and of what is long ago the month, that an entry falls into. */
const spanOf = ({ at }: Entry, nowMs: number): string =>
  nowMs - Date.parse(at) > BY_DAY_MS ? at.slice(0, 7) : at.slice(0, 10);

/** Of the probes of one stream those that stay, oldest first; which of them stay whole. */
function probesThatStay(
  probes: readonly EntryOf<'probe'>[],
  nowMs: number,
): { readonly stay: Set<Entry>; readonly whole: Set<Entry> } {
  const worked = probes.findLast(({ isPast, payload }) => !isPast && payload.verdict !== 'fail');
  const whole = new Set<Entry>([...probes.slice(-WHOLE), ...(worked ? [worked] : [])]);
  const stay = new Set<Entry>([...probes.slice(0, 1), ...whole]);
  const spans = new Map<string, EntryOf<'probe'>>();
  for (const entry of probes) {
    const span = spanOf(entry, nowMs);
    const known = spans.get(span);
    // of as bad ones the last
    if (!known || badness(entry) >= badness(known)) spans.set(span, entry);
  }
  for (const entry of spans.values()) stay.add(entry);
  return { stay, whole };
}

const slim = (entry: EntryOf<'probe'>): Entry =>
  entry.isPast
    ? entry
    : {
        ...entry,
        refs: [],
        payload: { ...entry.payload, note: '', proof: '', found: {}, facts: {} },
        facts: entry.facts.filter(({ quantity, how }) => how === 'measured' && KEPT_OF_OLD.has(quantity)),
        isPast: true,
      };

/** The journal with what is worth keeping; `now` is when the last entry was written. */
export function condensed(journal: readonly Entry[], newId: () => string): readonly Entry[] {
  const nowMs = Date.parse(journal.at(-1)?.at ?? '');
  const byStream = new Map<string, EntryOf<'probe'>[]>();
  for (const entry of journal) {
    if (!isProbe(entry)) continue;
    pushTo(byStream, entry.payload.of, entry);
  }
  const stay = new Set<Entry>();
  const whole = new Set<Entry>();
  for (const probes of byStream.values()) {
    const found = probesThatStay(probes, nowMs);
    for (const entry of found.stay) stay.add(entry);
    for (const entry of found.whole) whole.add(entry);
  }
  // Of each network the last sweep, in all its entries, says who is there; what older ones saw is history.
  const lastSweeps = new Set([
    ...new Map(journal.filter(isSweep).map(({ subject, source }) => [subject, `${subject} ${source}`])).values(),
  ]);
  const isOldSweep = (entry: Entry): entry is EntryOf<'sweep'> =>
    isSweep(entry) && !lastSweeps.has(`${entry.subject} ${entry.source}`);
  const isWords = ({ facts, payload, revokes }: Entry): boolean =>
    facts.length === 0 && payload === null && revokes.length === 0;
  const words = journal.filter(isWords);
  const latest = new Set(words.slice(-LATEST_WORDS));
  const kept = journal.filter((entry) => (isProbe(entry) ? stay.has(entry) : !isWords(entry) || latest.has(entry)));
  const gone = words.length - latest.size;
  const first = words[0];
  const last = words[gone - 1];
  const said = kept.map((entry) =>
    isProbe(entry) && !whole.has(entry)
      ? slim(entry)
      : isOldSweep(entry)
        ? { ...entry, payload: { ...entry.payload, hosts: [] }, isPast: true }
        : entry,
  );
  return gone > 0 && first && last ? [lineFor(gone, first, last, newId()), ...said] : said;
}

const lineFor = (count: number, first: Entry, last: Entry, id: string): Entry => ({
  id,
  at: last.at,
  kind: 'site',
  subject: 'site',
  text: `${sayMany(count, 'older entry', 'older entries')} of the logbook condensed into this one`,
  refs: [
    { name: 'from', value: first.at },
    { name: 'to', value: last.at },
  ],
  source: '',
  facts: [],
  payload: null,
  revokes: [],
  isPast: false,
});

/** The journal as it is kept after an entry was added: now and then condensed, and never beyond what a site can hold. */
export function kept(
  journal: readonly Entry[],
  newId: () => string,
  limit: number = LIST_LIMITS.journal,
): readonly Entry[] {
  const isDue = journal.length > SMALL && journal.length % EVERY === 0;
  if (!isDue && journal.length <= limit) return journal;
  const less = condensed(journal, newId);
  // More things than anybody has, each with its last probe: the latest of all stay.
  return less.length > limit ? less.slice(-Math.floor(limit / 2)) : less;
}
