import type { Verdict } from '../base/verdict.ts';
import type { Finding } from '../findings/finding.ts';
import type { StationId } from '../stations/registry.ts';

/** How one camera stands at one station. */
export interface LaneStation<Id extends string = StationId> {
  readonly station: Id;
  readonly name: string;
  readonly verdict: Verdict;
  readonly isDone: boolean;
  /** Worst first. */
  readonly findings: readonly Finding[];
  /** Questions that nobody can answer yet: why its verdict is not known. */
  readonly open: readonly string[];
}

/** How far one camera got through the stations. */
export interface Lane<Id extends string = StationId> {
  readonly cameraId: string;
  /** In working order. */
  readonly stations: readonly LaneStation<Id>[];
  /** The station it stands at; `null` when every gate holds. */
  readonly standsAt: Id | null;
  readonly worst: Finding | null;
  readonly findings: readonly Finding[];
  readonly next: string | null;
  /** With every gate held, the first question that nobody can answer yet; `null` where none is left. */
  readonly notKnown: string | null;
  /** What is said of it while nothing stands in the way. */
  readonly idle: string;
  /** When it was last measured, and whether something else was measured then than stands in the plan now. */
  readonly measured: { readonly at: string; readonly isOutdated: boolean } | null;
}

/** Where a lane is opened: where it stands, and at its end when it is done. */
export const opensAt = <Id extends string>(lane: Lane<Id> | undefined): Id | undefined =>
  lane?.standsAt ?? lane?.stations.at(-1)?.station;

/** Of its station; not known where it has none of that name. */
export const verdictAt = <Id extends string>(lane: Lane<Id> | undefined, id: Id): Verdict =>
  lane?.stations.find(({ station }) => station === id)?.verdict ?? 'unknown';

export const findingsAt = <Id extends string>({ stations }: Lane<Id>, id: Id): readonly Finding[] =>
  stations.find(({ station }) => station === id)?.findings ?? [];

/** Questions that nobody can answer yet, where that is what its verdict hangs on. */
export function openAt<Id extends string>({ stations }: Lane<Id>, id: Id): readonly string[] {
  const found = stations.find(({ station }) => station === id);
  return found?.verdict === 'unknown' ? found.open : [];
}
