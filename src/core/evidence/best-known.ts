import { kilobits } from '../base/units.ts';
import type { Stream } from '../document/chapters/cameras/camera.ts';
import { type Evidence, type FactValue, KNOWN_HOWS, type KnownHow } from '../document/chapters/journal/entry.ts';
import { streamSubject } from '../document/subject.ts';
import { modelledRate } from '../video/bitrate-model.ts';
import { type EvidenceIndex, factsOf, type SubjectEvidence } from './evidence-index.ts';

/** A value with how it is known. `source` says from what, for a tooltip. */
export interface Known<T extends FactValue = FactValue> {
  readonly value: T;
  readonly how: KnownHow;
  readonly source: string;
  readonly takenAt: string | null;
}

const RANKS: ReadonlyMap<KnownHow, number> = new Map(KNOWN_HOWS.map((how, rank) => [how, rank]));
const rank = (how: KnownHow): number => RANKS.get(how) ?? 0;

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
  return bestOf(factsOf(index, subject, quantity), planned);
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
  return factsOf(index, subject, quantity).findLast((item) => item.how === how) ?? null;
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
export function streamFactsOf(known: SubjectEvidence | undefined, stream: Stream): StreamFacts {
  const best = (quantity: string, planned: FactValue | null) => bestOf(known?.facts.get(quantity), planned);
  const codec = asText(best('codec', stream.codec));
  const width = asNumber(best('width', stream.width));
  const height = asNumber(best('height', stream.height));
  const fps = asNumber(best('fps', stream.fps));
  const gop = asNumber(best('keyframeIntervalFrames', stream.gopFrames));
  // A rate of 0 is what a stream has that failed: nothing was measured.
  let bitrateKbps = asNumber(bestOf(known?.facts.get('bitrateKbps'), stream.bitrateKbps, isAbove0));
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

/** How a stream was measured to come; `null` where nobody measured it. */
export function transportOf(index: EvidenceIndex, streamId: string): 'tcp' | 'udp' | null {
  const value = bestKnown(index, streamSubject(streamId), 'transport')?.value;
  return value === 'tcp' || value === 'udp' ? value : null;
}
