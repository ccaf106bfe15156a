/** What a step of the bench test is known as in the journal. */
export const benchQuantity = (itemId: string): string => `bench.${itemId}`;

/** What is looked at on a table, before anything is mounted. */
export interface BenchItem {
  readonly id: string;
  readonly said: string;
  readonly ask: string;
  /** It is done when a probe of any of its streams worked. */
  readonly byProbe?: true;
  /** Ways of power it is asked of; all when empty. */
  readonly ways: readonly string[];
}

/** In the order of the work: what fails here costs a minute, what fails on the ladder a visit. */
export const BENCH_ITEMS: readonly BenchItem[] = [
  {
    id: 'unpacked',
    said: 'all parts are in the box',
    ask: 'All parts are in the box: supply, bracket, screws, card',
    ways: [],
  },
  {
    id: 'mark',
    said: 'revision and serial written down',
    ask: 'Revision and serial of its label are written down',
    ways: [],
  },
  {
    id: 'negotiated',
    said: 'the port gives its class',
    ask: 'The port of the switch gives the class that was planned',
    ways: ['poe'],
  },
  {
    id: 'polarity',
    said: 'voltage and polarity right',
    ask: 'Voltage and polarity at the plug, before it is plugged in',
    ways: ['dc', 'passive'],
  },
  {
    id: 'night-volts',
    said: 'voltage holds with the light on',
    ask: 'Voltage at the camera with its light on, behind the whole length of cable',
    ways: ['dc', 'passive', 'usb'],
  },
  { id: 'charged', said: 'charged from the panel', ask: 'The panel charges it; the battery is full', ways: ['solar'] },
  { id: 'picture', said: 'it gives its picture', ask: 'It gives its picture to a probe', ways: [], byProbe: true },
  { id: 'night', said: 'its light works', ask: 'Hand over the lens: it changes to night, its light goes on', ways: [] },
  { id: 'held', said: 'held for an hour', ask: 'It ran for an hour without a break', ways: [] },
];

export const benchItemsFor = (way: string | null): readonly BenchItem[] =>
  BENCH_ITEMS.filter(({ ways }) => ways.length === 0 || (way !== null && ways.includes(way)));
