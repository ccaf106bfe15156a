import type { Verdict } from '../base/verdict.ts';

/** Stations that exist, in working order. */
export const STATIONS = ['tap', 'hand-over'] as const;
export type Station = (typeof STATIONS)[number];
export const STATION_NAMES: Readonly<Record<Station, string>> = { tap: 'Tap', 'hand-over': 'Hand over' };

/** What the gates may ask of a camera. */
export interface LaneFacts {
  readonly hasAddress: boolean;
  /** Title of what a tap's probe failed with, of the present address. */
  readonly probe:
    | { readonly state: 'none' | 'outdated' }
    | { readonly state: 'failed'; readonly title: string }
    | { readonly state: 'answered' };
  readonly taps: readonly {
    readonly destination: string;
    readonly verdict: Verdict;
    readonly handedOver: 'yes' | 'no' | 'outdated';
  }[];
}

/** The condition that ends a station, and the step it asks for until then. */
export interface Gate {
  readonly id: string;
  readonly station: Station;
  readonly condition: string;
  readonly holds: (facts: LaneFacts) => boolean;
  readonly next: (facts: LaneFacts) => string;
}

const unfit = (facts: LaneFacts) => facts.taps.find(({ verdict }) => verdict === 'will-not-work');
const open = (facts: LaneFacts) => facts.taps.find(({ handedOver }) => handedOver !== 'yes');

/** In working order: the first that does not hold is where a camera stands. */
export const GATES: readonly Gate[] = [
  {
    id: 'tap.address',
    station: 'tap',
    condition: 'It has an address',
    holds: (facts) => facts.hasAddress,
    next: () => 'Enter its address',
  },
  {
    id: 'tap.probed',
    station: 'tap',
    condition: 'It was probed at this address',
    holds: ({ probe }) => probe.state === 'answered' || probe.state === 'failed',
    next: ({ probe }) => (probe.state === 'outdated' ? 'Probe the new address' : 'Probe it'),
  },
  {
    id: 'tap.answers',
    station: 'tap',
    condition: 'It gives its stream',
    holds: ({ probe }) => probe.state === 'answered',
    next: () => 'Put it right and probe again',
  },
  {
    id: 'tap.given',
    station: 'tap',
    condition: 'A destination draws it',
    holds: ({ taps }) => taps.length > 0,
    next: () => 'Choose who draws it',
  },
  {
    id: 'tap.fits',
    station: 'tap',
    condition: 'It fits every destination that draws it',
    holds: (facts) => unfit(facts) === undefined,
    next: (facts) => `Make it fit ${unfit(facts)?.destination ?? ''}`,
  },
  {
    id: 'hand-over.entered',
    station: 'hand-over',
    condition: 'Its sheet was entered at every destination',
    holds: (facts) => facts.taps.length > 0 && open(facts) === undefined,
    next: (facts) =>
      open(facts)?.handedOver === 'outdated'
        ? `Hand over again to ${open(facts)?.destination}`
        : `Hand over to ${open(facts)?.destination ?? 'its destination'}`,
  },
];
