import { eachOf, isDocument, type Migration, type OldDocument } from './migrate.ts';

// As version 3 ended: evidence was a list of single facts, the log a list of lines, and three readings lay in the plan.

interface Fact4 {
  readonly subject: unknown;
  readonly quantity: unknown;
  readonly value: unknown;
  readonly how: unknown;
}

const listOf = (value: unknown): readonly OldDocument[] => (Array.isArray(value) ? value.filter(isDocument) : []);
/** A file that is no list where one belongs is refused by the shape, with its place. */
const isWhole = (value: unknown): boolean => Array.isArray(value) && value.every(isDocument);

const factOf = ({ subject, quantity, value, how }: OldDocument): Fact4 => ({ subject, quantity, value, how });

/** Of one moment and one source: they were written by one command. */
const momentOf = ({ takenAt, source }: OldDocument): string => `${String(takenAt)} ${String(source)}`;

const KIND_OF: readonly (readonly [string, string])[] = [
  ['bench.', 'power'],
  ['handedOver', 'hand-over'],
];
const kindOf = (fact: OldDocument): string =>
  KIND_OF.find(([start]) => String(fact.quantity).startsWith(start))?.[1] ?? 'probe';

/** Lines of the log with the facts that were learnt by them; facts whose line is long condensed stand for themselves. */
function journalOf(evidence: readonly OldDocument[], log: readonly OldDocument[]): readonly OldDocument[] {
  const groups = new Map<string, OldDocument[]>();
  for (const item of evidence) {
    const group = groups.get(momentOf(item));
    if (group) group.push(item);
    else groups.set(momentOf(item), [item]);
  }
  const waiting = [...groups.values()];
  const entries = log.map((line): OldDocument => {
    const at = waiting.findIndex(
      ([first]) => first?.takenAt === line.at && first !== undefined && kindOf(first) === line.kind,
    );
    const [group] = at < 0 ? [] : waiting.splice(at, 1);
    return { ...line, source: group?.[0]?.source ?? '', facts: (group ?? []).map(factOf), revokes: [], isPast: false };
  });
  const alone = waiting.flatMap(([first, ...rest]): readonly OldDocument[] =>
    first
      ? [
          {
            id: first.id,
            at: first.takenAt,
            kind: kindOf(first),
            subject: first.subject,
            text: 'Told before its line of the logbook was condensed',
            refs: [],
            source: first.source,
            facts: [first, ...rest].map(factOf),
            revokes: [],
            isPast: false,
          },
        ]
      : [],
  );
  return [...alone, ...entries];
}

const endOf = (document: OldDocument, link: OldDocument): readonly [unknown, unknown] => {
  const isPoint = (subject: unknown): boolean =>
    listOf(document.gear).some((gear) => gear.kind === 'access-point' && `gear:${String(gear.id)}` === subject);
  return isPoint(link.to) && !isPoint(link.from) ? [link.to, link.from] : [link.from, link.to];
};

const readOf = (subject: string, quantity: string, value: unknown): Fact4 => ({
  subject,
  quantity,
  value,
  how: 'measured',
});

/** Signal and battery, as they stood in the plan: read once, nobody knows when. */
function readings(document: OldDocument): readonly Fact4[] {
  const signals = listOf(document.links).flatMap((link): readonly Fact4[] => {
    if (typeof link.rssiDbm !== 'number') return [];
    const [point, end] = endOf(document, link);
    return [readOf(`air:${String(point)}:${String(end)}`, 'signalDbm', link.rssiDbm)];
  });
  const batteries = listOf(document.cameras).flatMap((camera): readonly Fact4[] => {
    const feed = isDocument(camera.feed) ? camera.feed : {};
    const charge = isDocument(feed.charge) ? feed.charge : {};
    const subject = `camera:${String(camera.id)}`;
    return [
      ...(typeof charge.batteryC === 'number' ? [readOf(subject, 'batteryC', charge.batteryC)] : []),
      ...(charge.isSwollen === true ? [readOf(subject, 'isSwollen', true)] : []),
    ];
  });
  return [...signals, ...batteries];
}

const without = (record: OldDocument, ...names: readonly string[]): OldDocument =>
  Object.fromEntries(Object.entries(record).filter(([name]) => !names.includes(name)));

/** An id that nothing of the document has; what version 3 wrote begins otherwise. */
const READINGS_ID = 'readings-of-version-3';

/** 4: plan and journal apart: one entry for one probe, readings in the journal. */
export const to4: Migration = (document) => {
  const { evidence, log, ...plan } = document;
  const entries = isWhole(evidence) && isWhole(log) ? journalOf(listOf(evidence), listOf(log)) : evidence;
  const facts = readings(document);
  const at = listOf(log)[0]?.at ?? '2026-01-01T00:00:00.000Z';
  const read = {
    id: READINGS_ID,
    at,
    kind: 'power',
    subject: 'site',
    text: 'Readings taken over from the plan',
    refs: [],
    source: 'an older file',
    facts,
    revokes: [],
    isPast: false,
  };
  return {
    ...plan,
    version: 4,
    links: eachOf(document.links, (link) => without(link, 'rssiDbm')),
    cameras: eachOf(document.cameras, (camera) => {
      const feed = isDocument(camera.feed) ? camera.feed : null;
      if (!feed || !isDocument(feed.charge)) return camera;
      return { ...camera, feed: { ...feed, charge: without(feed.charge, 'batteryC', 'isSwollen') } };
    }),
    journal: Array.isArray(entries) && facts.length > 0 ? [read, ...entries] : entries,
  };
};
