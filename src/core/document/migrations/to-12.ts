import { isRecord } from '../../base/is-record.ts';
import { checkReading } from '../../onvif/reading-check.ts';
import { EVENT_KINDS } from '../../onvif/services/events.ts';
import { REASONS } from '../../probe/reasons.ts';
import { PROBE_CAUSES } from '../../rtsp/exchange-types.ts';
import { checkSeenHost } from '../../scan/seen-check.ts';
import { checkPayload, isFoundWay, isProbeFact } from '../payload/payload-check.ts';
import { eachOf, type Migration, type OldDocument } from './migrate.ts';
import { withSignatureHash } from './to-13.ts';

// Until 11 a probe, a reading, a count, a sweep and a listening were kept as facts, each a text, a number or yes or no.

interface OldFact {
  readonly subject: unknown;
  readonly quantity: string;
  readonly value: unknown;
}
const isOldFact = (value: unknown): value is OldFact => isRecord(value) && typeof value.quantity === 'string';

/** Quantities that go into the payload. What a person trusted, and what other stations build on, stays. */
const OF_PAYLOAD = /^(?:probe|fact|found|onvif|sessions|sweep|heard)\./;

/** The facts of one entry by name. */
class Told {
  constructor(private readonly facts: readonly OldFact[]) {}
  first(quantity: string): OldFact | undefined {
    return this.facts.find((fact) => fact.quantity === quantity);
  }
  of(quantity: string): unknown {
    return this.first(quantity)?.value ?? null;
  }
  all(quantity: string): readonly unknown[] {
    return this.facts.flatMap((fact) => (fact.quantity === quantity ? [fact.value] : []));
  }
  text(quantity: string): string {
    const value = this.of(quantity);
    return typeof value === 'string' ? value : '';
  }
  /** `null` for the words that stood where nothing was known. */
  number(quantity: string): number | null {
    const value = this.of(quantity);
    return typeof value === 'number' ? value : null;
  }
  under(prefix: string): readonly (readonly [string, unknown])[] {
    return this.facts.flatMap(({ quantity, value }) =>
      quantity.startsWith(prefix) ? [[quantity.slice(prefix.length), value] as const] : [],
    );
  }
}

function parsed(value: unknown): unknown {
  try {
    return JSON.parse(String(value));
  } catch {
    return null;
  }
}

/** A word that is known by now; `null` for one that a version of before had, or nobody. */
const known = (words: readonly string[], value: unknown): unknown => words.find((word) => word === value) ?? null;

const probeOf = (told: Told): OldDocument => ({
  url: told.text('probe.url'),
  verdict: told.of('probe.verdict'),
  cause: known(PROBE_CAUSES, told.of('probe.cause')),
  note: told.text('probe.note'),
  reason: known(REASONS, told.of('probe.reason')),
  proof: told.text('probe.proof'),
  found: Object.fromEntries(told.under('found.').filter(([name, value]) => isFoundWay(name, value))),
  facts: Object.fromEntries(told.under('fact.').filter(([name, value]) => isProbeFact(name, value))),
});

/** What readings of before did not say. */
const OF_BEFORE = { heldDoors: [], isTls: false, tls: null, tellsLogin: false };

function readingOf(told: Told): OldDocument {
  const device = parsed(told.of('onvif.device'));
  if (!isRecord(device)) return { reading: null };
  const { ptz, events } = device;
  const bare = withSignatureHash({ ...OF_BEFORE, ...device });
  // of a list what makes sense by itself: one profile that does not takes no other along
  const each = (name: string, alone: (item: unknown) => object): readonly unknown[] =>
    told
      .all(`onvif.${name}`)
      .map(parsed)
      .filter((item) => checkReading({ ...bare, ...alone(item) }) === null);
  const withPresets = (presets: unknown) => (isRecord(ptz) ? { ptz: { ...ptz, presets: ptz.presets && presets } } : {});
  const withTopics = (topics: unknown) => (isRecord(events) ? { events: { ...events, topics } } : {});
  return {
    reading: {
      ...bare,
      services: each('service', (item) => ({ services: [item] })),
      profiles: each('profile', (item) => ({ profiles: [item] })),
      ...withPresets(each('preset', (item) => withPresets([item]))),
      ...withTopics(each('topic', (item) => withTopics([item]))),
    },
  };
}

function sessionsOf(told: Told): OldDocument {
  const [cause, effect] = [told.text('sessions.cause'), told.text('sessions.effect')];
  return {
    host: told.text('sessions.host'),
    report: {
      limit: told.number('sessions.limit'),
      opened: told.number('sessions.played') ?? 0,
      most: told.number('sessions.most') ?? 0,
      refusedWith:
        known(PROBE_CAUSES, cause) === null
          ? null
          : { cause, status: told.number('sessions.status'), note: told.text('sessions.note') },
      firstAlonePerS: told.number('sessions.alonePerS'),
      firstBesidePerS: told.number('sessions.besidePerS'),
      effectOnFirst: effect === '' || effect === 'not seen' ? null : effect,
      closed: told.number('sessions.closed') ?? 0,
    },
  };
}

const sweepOf = (told: Told): OldDocument => ({
  range: told.text('sweep.range'),
  isWhole: told.of('sweep.isWhole') === true,
  hosts: told
    .all('sweep.host')
    .map(parsed)
    .filter((host) => checkSeenHost(host) === null),
});

const heardOf = (told: Told): OldDocument => ({
  heard: {
    seconds: told.number('heard.seconds'),
    changes: told.number('heard.changes'),
    motions: told.number('heard.motions'),
    firstMotionS: null,
    kinds: told
      .text('heard.kinds')
      .split(', ')
      .filter((kind) => known(EVENT_KINDS, kind) !== null),
    lost: told.number('heard.lost'),
    cause: null,
    note: told.text('heard.note'),
  },
});

/** By the fact that each of them had. */
const KINDS: readonly (readonly [kind: string, by: string, payloadOf: (told: Told) => OldDocument])[] = [
  ['probe', 'probe.verdict', probeOf],
  ['reading', 'onvif.device', readingOf],
  ['sessions', 'sessions.played', sessionsOf],
  ['sweep', 'sweep.range', sweepOf],
  ['heard', 'heard.seconds', heardOf],
];

/** What somebody else wrote under these names, and no rule could read, is left out; the words of its entry stay. */
function withPayload(entry: OldDocument): OldDocument {
  const facts: readonly unknown[] = Array.isArray(entry.facts) ? entry.facts : [];
  const told = new Told(facts.filter(isOldFact));
  for (const [kind, by, payloadOf] of KINDS) {
    const first = told.first(by);
    if (!first) continue;
    const payload = { kind, of: first.subject, ...payloadOf(told) };
    const others = facts.filter((fact) => !isOldFact(fact) || !OF_PAYLOAD.test(fact.quantity));
    return { ...entry, facts: others, payload: checkPayload(payload) === null ? payload : null };
  }
  return { ...entry, payload: null };
}

/** 12: what was measured as a whole is one typed payload of its entry. */
export const to12: Migration = (document) => ({
  ...document,
  version: 12,
  journal: eachOf(document.journal, withPayload),
});
