import type { Verdict } from '../base/verdict.ts';

/** Stations that exist, in working order. */
export const STATIONS = ['choose', 'power', 'tap', 'hand-over'] as const;
export type Station = (typeof STATIONS)[number];
export const STATION_NAMES: Readonly<Record<Station, string>> = {
  choose: 'Choose',
  power: 'Power',
  tap: 'Tap',
  'hand-over': 'Hand over',
};

const STATION_OF: readonly (readonly [string, Station])[] = [
  ['choose.', 'choose'],
  ['power.', 'power'],
  ['air.', 'power'],
  ['link.', 'power'],
];
/** The station whose work a rule's finding is: the first part of its id says it. */
export const stationOfRule = (ruleId: string): Station =>
  STATION_OF.find(([part]) => ruleId.startsWith(part))?.[1] ?? 'tap';

/** What the gates may ask of a camera. */
export interface LaneFacts {
  readonly hasNeed: boolean;
  readonly hasModel: boolean;
  /** Titles of what stops it at Choose and at Power. */
  readonly chooseStop: string | null;
  readonly powerStop: string | null;
  readonly hasFeed: boolean;
  /** Its way of power needs a link to what feeds it, and there is none. */
  readonly lacksFeeder: boolean;
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
  // A camera with an address hangs already: what was never written down of it does not hold it back.
  {
    id: 'choose.need',
    station: 'choose',
    condition: 'What it must show is said',
    holds: (facts) => facts.hasNeed || facts.hasAddress,
    next: () => 'Say what it must show',
  },
  {
    id: 'choose.model',
    station: 'choose',
    condition: 'A model is chosen',
    holds: (facts) => facts.hasModel || facts.hasAddress,
    next: () => 'Choose a model',
  },
  {
    id: 'choose.fits',
    station: 'choose',
    condition: 'Nothing speaks against the model in its place',
    holds: (facts) => facts.chooseStop === null,
    next: () => 'Take another model, or place it otherwise',
  },
  {
    id: 'power.way',
    station: 'power',
    condition: 'What feeds it is said',
    holds: (facts) => facts.hasFeed || facts.hasAddress,
    next: () => 'Say what feeds it',
  },
  {
    id: 'power.joined',
    station: 'power',
    condition: 'It is joined to what feeds it',
    holds: (facts) => !facts.lacksFeeder || facts.hasAddress,
    next: () => 'Join it to what feeds it',
  },
  {
    id: 'power.holds',
    station: 'power',
    condition: 'Power and links hold',
    holds: (facts) => facts.powerStop === null,
    next: () => 'Make its power and links hold',
  },
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
