import { pushTo } from '../base/push-to.ts';
import type { Entry, Evidence } from '../document/chapters/journal/entry.ts';
import type { Payload, PayloadKind, PayloadOf } from '../document/payload/payload.ts';

/** What was learnt as a whole, with its time and its source. It stays the same object as long as its entry counts. */
export interface Taken<P extends Payload = Payload> {
  readonly payload: P;
  readonly takenAt: string;
  readonly source: string;
}

/** What is known of one subject, the latest last: facts by quantity, and what was learnt as a whole. */
export interface SubjectEvidence {
  readonly facts: ReadonlyMap<string, readonly Evidence[]>;
  readonly taken: readonly Taken[];
}
/** Evidence by subject. Built once per document; look-ups are then constant. */
export type EvidenceIndex = ReadonlyMap<string, SubjectEvidence>;

const NONE: readonly never[] = [];

/** All that is known of one quantity of a subject, the latest last. */
export const factsOf = (index: EvidenceIndex, subject: string, quantity: string): readonly Evidence[] =>
  index.get(subject)?.facts.get(quantity) ?? NONE;

/** What was told last of a quantity. */
export const lastFact = (index: EvidenceIndex, subject: string, quantity: string): Evidence | undefined =>
  factsOf(index, subject, quantity).at(-1);

const isOf =
  <K extends PayloadKind>(kind: K) =>
  (one: Taken): one is Taken<PayloadOf<K>> =>
    one.payload.kind === kind;

/** All that was learnt in one kind, the latest last. */
export const payloadsIn = <K extends PayloadKind>(
  { taken }: SubjectEvidence,
  kind: K,
): readonly Taken<PayloadOf<K>>[] => taken.filter(isOf(kind));
/** The same of a subject. */
export const payloadsOf = <K extends PayloadKind>(
  index: EvidenceIndex,
  subject: string,
  kind: K,
): readonly Taken<PayloadOf<K>>[] => {
  const known = index.get(subject);
  return known ? payloadsIn(known, kind) : NONE;
};

/** What was learnt last of a subject in one kind. */
export const lastPayload = <K extends PayloadKind>(
  index: EvidenceIndex,
  subject: string,
  kind: K,
): Taken<PayloadOf<K>> | undefined => index.get(subject)?.taken.findLast(isOf(kind));

export const indexEvidence = (journal: readonly Entry[]): EvidenceIndex => createEvidenceIndexer()(journal);

/**
 * Indexes one journal after the other. Entries are only ever added, so of a longer list just what is new is taken in;
 * subjects that nothing was added to keep their map, and who holds on to it knows that nothing changed.
 */
export function createEvidenceIndexer(): (journal: readonly Entry[]) => EvidenceIndex {
  let known: readonly Entry[] = [];
  let index: EvidenceIndex = new Map();
  return (journal) => {
    if (journal === known) return index;
    // Lists grow at their end and share their items: where both ends are the same, all between them is.
    const isLonger = journal[0] === known[0] && journal[known.length - 1] === known.at(-1);
    const added = isLonger ? journal.slice(known.length) : journal;
    // What was taken back may be anywhere: then all is looked at again, which happens when a person does it.
    const isPlain = isLonger && added.every(({ revokes }) => revokes.length === 0);
    if (!isPlain) index = extended(new Map(), withoutRevoked(journal));
    else if (added.some(({ facts, payload }) => facts.length > 0 || payload !== null)) index = extended(index, added);
    known = journal;
    return index;
  };
}

function withoutRevoked(journal: readonly Entry[]): readonly Entry[] {
  // What takes back stands later than what it takes back, and may be taken back itself.
  const revoked = new Set<string>();
  for (const { id, revokes } of journal.toReversed())
    if (!revoked.has(id)) for (const taken of revokes) revoked.add(taken);
  return revoked.size === 0 ? journal : journal.filter(({ id }) => !revoked.has(id));
}

interface Growing {
  readonly facts: Map<string, Evidence[]>;
  readonly taken: Taken[];
}

function extended(before: EvidenceIndex, added: readonly Entry[]): EvidenceIndex {
  const index = new Map<string, SubjectEvidence>(before);
  const touched = new Map<string, Growing>();
  const growing = (subject: string): Growing => {
    const known = touched.get(subject);
    if (known) return known;
    const old = before.get(subject);
    const own: Growing = {
      facts: new Map([...(old?.facts ?? NONE)].map(([quantity, list]) => [quantity, [...list]])),
      taken: [...(old?.taken ?? NONE)],
    };
    touched.set(subject, own);
    index.set(subject, own);
    return own;
  };
  for (const { at, source, facts, payload, isPast } of added) {
    if (isPast) continue;
    if (payload) growing(payload.of).taken.push({ payload, takenAt: at, source });
    for (const fact of facts) pushTo(growing(fact.subject).facts, fact.quantity, { ...fact, takenAt: at, source });
  }
  return index;
}
