import type { Payload } from '../../payload/payload.ts';

/** How a number is known, worst first; the best one wins. */
export const KNOWN_HOWS = ['assumed', 'planned', 'declared', 'measured', 'confirmed'] as const;
export type KnownHow = (typeof KNOWN_HOWS)[number];

export type FactValue = string | number | boolean;

/** One thing that an entry knows. `quantity` is a name of the catalogue (`quantities.ts`). */
export interface Fact {
  readonly subject: string;
  readonly quantity: string;
  readonly value: FactValue;
  readonly how: KnownHow;
}

/** What an entry is about, and what the logbook calls it. */
export const LOG_KIND_WORDS = {
  site: 'Site',
  note: 'Note',
  edit: 'Edit',
  choose: 'Choose',
  power: 'Power',
  prepare: 'Prepare',
  address: 'Address',
  probe: 'Probe',
  tap: 'Tap',
  'hand-over': 'Hand-over',
} as const;
export type LogKind = keyof typeof LOG_KIND_WORDS;
export const LOG_KINDS = Object.keys(LOG_KIND_WORDS) as readonly LogKind[]; // the keys that it was just given

/** Numbers behind a text: name and value, as they were then. */
export interface Ref {
  readonly name: string;
  readonly value: string;
}

/**
 * What happened once, in words, with what was learnt by it: a probe with all its facts is one entry. The journal only grows;
 * what an entry told wrongly, a later one takes back.
 */
export interface Entry {
  readonly id: string;
  readonly at: string;
  readonly kind: LogKind;
  /** `site`, or what `subject.ts` makes. */
  readonly subject: string;
  readonly text: string;
  readonly refs: readonly Ref[];
  /** Who or what its facts are from: the id of a probe, a person; empty where it has none. */
  readonly source: string;
  readonly facts: readonly Fact[];
  /** What was learnt as a whole and is judged as such; `null` where it is words and facts alone. */
  readonly payload: Payload | null;
  /** Entries whose facts no longer count, since somebody took them back. */
  readonly revokes: readonly string[];
  /** Condensed: kept to be compared with, and judged by no station. */
  readonly isPast: boolean;
}

/** A fact with its time and its source, as it is looked up. */
export interface Evidence extends Fact {
  readonly takenAt: string;
  readonly source: string;
}
