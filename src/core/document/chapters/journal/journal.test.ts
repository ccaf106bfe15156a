import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply, mill, probed, record, report, stamps, wordsEntry } from '../../../../../tests/support/sites.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { bestKnown } from '../../../evidence/best-known.ts';
import { indexEvidence } from '../../../evidence/evidence-index.ts';
import { factsOfReport, payloadOfReport } from '../../../evidence/probe-evidence.ts';
import { rememberedProbe } from '../../../evidence/remembered-probe.ts';
import { applyCommand } from '../../site-commands.ts';
import { readSiteFile, writeSiteFile } from '../../site-file.ts';
import { refusalOf } from '../../site-fit.ts';
import { condensed, kept } from './condense.ts';
import type { Entry } from './entry.ts';
import { entryProblem, journalProblem } from './entry-check.ts';
import { QUANTITIES, sayQuantity } from './quantities.ts';
import { readingOf } from './reading.ts';

type Told = NonNullable<Parameters<typeof report>[0]>;
type Taught = Pick<Entry, 'facts' | 'payload'>;
const told = new Map<string, Taught>();
/** By a probe: thousands are alike. */
function taughtBy(stream: string, more: Told): Taught {
  const key = JSON.stringify([stream, more]);
  const one = report(more);
  const taught = told.get(key) ?? {
    facts: factsOfReport(one, stream),
    payload: payloadOfReport(one, stream, 'rtsp://10.77.4.21/live'),
  };
  told.set(key, taught);
  return taught;
}
const probe = (at: number, stream: string, more: Told = {}, minutes = 15): Entry => ({
  id: `${stream}-${at}`,
  at: new Date(Date.UTC(2026, 0, 1) + at * minutes * 60_000).toISOString(),
  kind: 'probe',
  subject: 'camera:a',
  text: `probed ${at}`,
  refs: [],
  source: `probe-${at}`,
  ...taughtBy(stream, more),
  revokes: [],
  isPast: false,
});
const words = (at: number): Entry => wordsEntry(`w-${at}`, String(at));
const newId = stamps().newId;

test('one probe is one entry, with its facts, its words and its source', () => {
  const site = apply(mill(), probed('sluice', report()));
  expect(site.journal).toHaveLength(1);
  expect(site.journal[0]).toMatchObject({
    kind: 'probe',
    text: 'sluice main probed: works',
    source: expect.any(String),
  });
  expect(site.journal[0]?.facts.length).toBeGreaterThan(10);
  expect(site.journal[0]?.payload).toMatchObject({
    kind: 'probe',
    of: 'stream:sluice-main',
    facts: { bFrames: false },
  });
});

test('a year of watching is condensed: first, last, worst of each day and month, and the last whole', () => {
  const DAYS = 365;
  // every two hours; one probe in the year failed, one lost packets
  const probes = Array.from({ length: DAYS * 12 }, (_, at) =>
    probe(at, 's', at === 1003 ? { cause: 'closed' } : at === 2500 ? { lost: 40 } : {}, 120),
  );
  const less = condensed(probes, newId);
  expect(less.length).toBeLessThan(100);
  expect(less[0]?.source).toBe('probe-0');
  expect(less.at(-1)).toBe(probes.at(-1));
  expect(less.map(({ source }) => source)).toEqual(expect.arrayContaining(['probe-1003', 'probe-2500']));
  // Of the last week each day is there, and of the year each month.
  const lastDay = Date.parse(probes.at(-1)?.at ?? '');
  const days = new Set(
    less.filter(({ at }) => lastDay - Date.parse(at) < 6.5 * 86_400_000).map(({ at }) => at.slice(0, 10)),
  );
  expect(days.size).toBeGreaterThanOrEqual(7);
  expect(new Set(less.map(({ at }) => at.slice(0, 7))).size).toBeGreaterThanOrEqual(12);
  // What stations judge by is as it was.
  expect(rememberedProbe(indexEvidence(less), 's')).toEqual(rememberedProbe(indexEvidence(probes), 's'));
  // Condensed again, nothing more goes.
  expect(condensed(less, newId)).toEqual(less);
});

test('what a person confirmed or took back, and the latest words, stay; one line tells of the rest', () => {
  const confirmed = apply(mill(), record('t', 'sluice'), {
    kind: 'recordHandOver',
    tapId: 't',
    url: 'rtsp://x/',
    by: 'hand',
    refs: [],
  }).journal.slice(-1);
  const journal = [...confirmed, ...Array.from({ length: 2500 }, (_, at) => words(at))];
  const less = condensed(journal, newId);
  expect(less[0]?.text).toBe('500 older entries of the logbook condensed into this one');
  expect(less).toHaveLength(1 + 1 + 2000);
  expect(less).toContain(confirmed[0]);
  expect(less.at(-1)).toBe(journal.at(-1));
});

test('however it is made up, a condensed journal is in its order, fits, and stations judge the same by it', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(3), fc.constantFrom('ok', 'bad', 'lossy', 'words'), fc.nat(400)), { maxLength: 60 }),
      (all) => {
        let hours = 0;
        const journal = all.map(([stream, what, gap], at) => {
          hours += gap;
          if (what === 'words') return words(at);
          const more = what === 'bad' ? { cause: 'closed' as const } : what === 'lossy' ? { lost: 30 } : {};
          return { ...probe(hours, `s${stream}`, more, 60), id: `p-${at}`, source: `probe-${at}` };
        });
        const less = condensed(journal, newId);
        expect(journalProblem(less)).toBeNull();
        const order = less.flatMap(({ id }) => journal.findIndex((entry) => entry.id === id));
        expect(order).toEqual([...order].sort((a, b) => a - b));
        for (const stream of ['s0', 's1', 's2', 's3'])
          expect(rememberedProbe(indexEvidence(less), stream)).toEqual(rememberedProbe(indexEvidence(journal), stream));
      },
    ),
  ));

test('a journal at its limit is kept below it, and the site opens with the probe that would have filled it', () => {
  const one = probe(0, 'one');
  const slim = Array.from({ length: LIST_LIMITS.journal }, (_, at) => ({
    ...one,
    id: `f-${at}`,
    at: probe(at, 'one').at,
    source: `probe-${at}`,
    facts: one.facts.slice(0, 3).map((fact) => ({ ...fact, subject: `stream:s${at % 40_000}` })),
    payload: one.payload && { ...one.payload, of: `stream:s${at % 40_000}` },
  }));
  const full = { ...mill(), journal: slim };
  const after = applyCommand(full, probed('sluice', report()), stamps());
  expect(after.journal.length).toBeLessThanOrEqual(LIST_LIMITS.journal);
  expect(refusalOf(full, after)).toBeNull();
  expect(kept(slim.slice(0, 100), newId)).toHaveLength(100);
});

const hurt = (facts: object) => (entry: Entry) => ({ ...entry, payload: { ...entry.payload, facts } });

test.each([
  { why: 'no record', change: () => 7 },
  { why: 'a field missing', change: ({ at: _, ...rest }: Entry) => rest },
  { why: 'a field too many', change: (entry: Entry) => ({ ...entry, more: 1 }) },
  { why: 'an id with a blank', change: (entry: Entry) => ({ ...entry, id: 'a b' }) },
  { why: 'an id that means something else', change: (entry: Entry) => ({ ...entry, id: '__proto__' }) },
  { why: 'a day that does not exist', change: (entry: Entry) => ({ ...entry, at: '2026-02-31T09:00:00.000Z' }) },
  { why: 'a kind of its own', change: (entry: Entry) => ({ ...entry, kind: 'gossip' }) },
  {
    why: 'a text beyond its limit',
    change: (entry: Entry) => ({ ...entry, text: 'x'.repeat(TEXT_LIMITS.logText + 1) }),
  },
  {
    why: 'a value that JSON cannot carry',
    change: (entry: Entry) => ({ ...entry, facts: [{ ...entry.facts[0], value: Number.NaN }] }),
  },
  { why: 'a fact of nothing', change: (entry: Entry) => ({ ...entry, facts: [null] }) },
  { why: 'a payload of no kind', change: (entry: Entry) => ({ ...entry, payload: { kind: 'x', of: 'y' } }) },
  { why: 'a fact of a probe of another type', change: hurt({ lossRatio: 'much' }) },
  { why: 'a fact of a probe that nobody knows', change: hurt({ luck: 1 }) },
  { why: 'facts in a text', change: (entry: Entry) => ({ ...entry, facts: 'many' }) },
])('an entry is refused for $why, by its place', ({ change }) => {
  const good = probe(1, 's');
  expect(entryProblem(good)).toBeNull();
  expect(entryProblem(change(good))).toMatch(/./);
});

test('any JSON at all is refused or taken, never an exception', () =>
  fc.assert(
    fc.property(fc.jsonValue(), (value) => {
      expect(typeof (journalProblem(value) ?? '')).toBe('string');
      expect(typeof (journalProblem([value]) ?? '')).toBe('string');
    }),
  ));

test('a reading lies in the journal; an emptied field takes it back, and a file keeps both', () => {
  const subject = 'camera:sluice';
  const warm = apply(mill(), readingOf(subject, subject, 'batteryC', 41), readingOf(subject, subject, 'batteryC', 46));
  const of = (journal: readonly Entry[]) => bestKnown(indexEvidence(journal), subject, 'batteryC')?.value;
  expect(of(warm.journal)).toBe(46);
  expect(warm.journal.at(-1)?.text).toBe('sluice: battery temperature measured: 46 °C');
  const empty = applyCommand(warm, readingOf(subject, subject, 'batteryC', null), stamps('2026-11-25T10:00:00.000Z'));
  expect(of(empty.journal)).toBeUndefined();
  expect(empty.journal).toHaveLength(3);
  expect(readSiteFile(writeSiteFile(empty))).toEqual({ ok: true, value: empty });
});

test('every quantity has a unit or needs none, and is said with it', () => {
  for (const [name, { label, unit }] of Object.entries(QUANTITIES)) {
    expect(label.length).toBeGreaterThan(3);
    if (unit !== '') expect(sayQuantity(name, 2)).toMatch(/\d/);
  }
  expect(sayQuantity('bitrateKbps', 1200)).toBe('1.20 Mbit/s');
  expect(sayQuantity('of another make', 3)).toBe('3');
});
