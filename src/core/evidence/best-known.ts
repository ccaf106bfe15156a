import { kilobits } from '../base/units.ts';
import type { Stream } from '../document/chapters/cameras/camera.ts';
import {
  type Entry,
  type Evidence,
  type FactValue,
  KNOWN_HOWS,
  type KnownHow,
} from '../document/chapters/journal/entry.ts';
import { streamSubject } from '../document/subject.ts';
import { modelledRate } from '../video/bitrate-model.ts';

/** A value with how it is known. `source` says from what, for a tooltip. */
export interface Known<T extends FactValue = FactValue> {
  readonly value: T;
  readonly how: KnownHow;
  readonly source: string;
  readonly takenAt: string | null;
}

const RANKS: ReadonlyMap<KnownHow, number> = new Map(KNOWN_HOWS.map((how, rank) => [how, rank]));
const rank = (how: KnownHow): number => RANKS.get(how) ?? 0;

/** What is known of one subject, by quantity. */
export type QuantitiesOf = ReadonlyMap<string, readonly Evidence[]>;
/** Evidence by subject, then by quantity. Built once per document; look-ups are then constant. */
export type EvidenceIndex = ReadonlyMap<string, QuantitiesOf>;

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
    else if (added.some(({ facts }) => facts.length > 0)) index = extended(index, added);
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

function extended(before: EvidenceIndex, added: readonly Entry[]): EvidenceIndex {
  const index = new Map<string, QuantitiesOf>(before);
  const touched = new Map<string, Map<string, Evidence[]>>();
  for (const { at, source, facts, isPast } of added)
    for (const fact of isPast ? [] : facts) {
      let quantities = touched.get(fact.subject);
      if (!quantities) {
        quantities = new Map([...(before.get(fact.subject) ?? [])].map(([quantity, list]) => [quantity, [...list]]));
        touched.set(fact.subject, quantities);
        index.set(fact.subject, quantities);
      }
      const item: Evidence = { ...fact, takenAt: at, source };
      const list = quantities.get(fact.quantity);
      if (list) list.push(item);
      else quantities.set(fact.quantity, [item]);
    }
  return index;
}

/**
 * The best known value: the highest `how`, of these the last that was written. The order of the journal decides, not the
 * clock: one that was ahead once would hide all that is found later. A planned value takes part when given.
 */
export function bestKnown(
  index: EvidenceIndex,
  subject: string,
  quantity: string,
  planned: FactValue | null = null,
): Known | null {
  return bestOf(index.get(subject)?.get(quantity), planned);
}

/** The best of all that is known of one quantity; `counts` leaves out what is no answer. */
export function bestOf(
  items: readonly Evidence[] | undefined,
  planned: FactValue | null = null,
  counts: (value: FactValue) => boolean = () => true,
): Known | null {
  let best: Known | null =
    planned === null ? null : { value: planned, how: 'planned', source: 'the plan', takenAt: null };
  for (const item of items ?? []) if ((!best || rank(item.how) >= rank(best.how)) && counts(item.value)) best = item;
  return best;
}

/** The last value known in just this way: declared beside measured. */
export function knownAs(index: EvidenceIndex, subject: string, quantity: string, how: KnownHow): Known | null {
  return (
    index
      .get(subject)
      ?.get(quantity)
      ?.findLast((item) => item.how === how) ?? null
  );
}

/** Facts of a stream that other stations build on. */
export interface StreamFacts {
  readonly codec: Known<string> | null;
  readonly width: Known<number> | null;
  readonly height: Known<number> | null;
  readonly fps: Known<number> | null;
  readonly bitrateKbps: Known<number> | null;
}

const asNumber = (known: Known | null): Known<number> | null =>
  known && typeof known.value === 'number' ? { ...known, value: known.value } : null;
const asText = (known: Known | null): Known<string> | null =>
  known && typeof known.value === 'string' ? { ...known, value: known.value } : null;

const isAbove0 = (value: FactValue): boolean => typeof value === 'number' && value > 0;

/** Used where neither plan nor probe says how often a key frame comes. */
const ASSUMED_KEYFRAME_S = 2;

/**
 * What is best known of a stream. A rate nobody declared, measured or planned is modelled from codec, size and frames a
 * second, and then it is `assumed`.
 */
export const streamFacts = (index: EvidenceIndex, stream: Stream): StreamFacts =>
  streamFactsOf(index.get(streamSubject(stream.id)), stream);

/** The same, from what is known of just this stream. */
export function streamFactsOf(quantities: QuantitiesOf | undefined, stream: Stream): StreamFacts {
  const known = (quantity: string, planned: FactValue | null) => bestOf(quantities?.get(quantity), planned);
  const codec = asText(known('codec', stream.codec));
  const width = asNumber(known('width', stream.width));
  const height = asNumber(known('height', stream.height));
  const fps = asNumber(known('fps', stream.fps));
  const gop = asNumber(known('keyframeIntervalFrames', stream.gopFrames));
  // A rate of 0 is what a stream has that failed: nothing was measured.
  let bitrateKbps = asNumber(bestOf(quantities?.get('bitrateKbps'), stream.bitrateKbps, isAbove0));
  if (!bitrateKbps && codec && width && height && fps) {
    const gopFrames = gop?.value ?? ASSUMED_KEYFRAME_S * fps.value;
    const rate = modelledRate({
      codec: codec.value,
      width: width.value,
      height: height.value,
      fps: fps.value,
      gopFrames,
    });
    if (rate !== null)
      bitrateKbps = { value: rate / kilobits(1), how: 'assumed', source: 'model of an ordinary scene', takenAt: null };
  }
  return { codec, width, height, fps, bitrateKbps };
}
