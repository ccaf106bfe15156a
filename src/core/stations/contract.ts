import type { Verdict } from '../base/verdict.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { SiteCommand } from '../document/site-commands.ts';
import type { Finding, Mend } from '../findings/finding.ts';
import type { SiteView } from '../site/site-view.ts';

/** The condition that ends a station, and the step it asks for until then. */
export interface Gate<F> {
  readonly id: string;
  readonly condition: string;
  readonly holds: (facts: F) => boolean;
  readonly next: (facts: F) => string;
}

/** A gate as it stands for one camera. */
export interface GateState {
  readonly id: string;
  readonly holds: boolean;
  readonly next: string;
}

export const gateStates = <F>(gates: readonly Gate<F>[], facts: F): readonly GateState[] =>
  gates.map(({ id, holds, next }) => {
    const isOpen = holds(facts);
    return { id, holds: isOpen, next: isOpen ? '' : next(facts) };
  });

/** What a station finds of one camera. */
export interface StationFound {
  readonly verdict: Verdict;
  readonly findings: readonly Finding[];
  /** Questions that nobody can answer yet. */
  readonly open: readonly string[];
  /** In working order. */
  readonly gates: readonly GateState[];
  /** What the lane says while the camera stands there and nothing was found. */
  readonly idle: string;
  /** When it was last measured there; `isOutdated` when something else was measured then than stands in the plan now. */
  readonly measured?: { readonly at: string; readonly isOutdated: boolean } | null;
}

/** One step of the work: what it asks of a camera, and what ends it. */
export interface Station<Id extends string = string> {
  readonly id: Id;
  readonly name: string;
  /** What a lane says that has passed it, where it is the last. */
  readonly done?: string;
  readonly rules: readonly { readonly id: string }[];
  readonly gates: readonly { readonly id: string; readonly condition: string }[];
  readonly judge: (camera: Camera, view: SiteView) => StationFound;
  /** Remedies of a finding of this station that core can carry out, the likeliest first; not yet tried on the whole site. */
  readonly mends: (camera: Camera, rule: string, view: SiteView) => readonly Mend<SiteCommand>[];
}
