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
    ask: 'All parts are in the box: power supply, bracket, screws, SD card',
    ways: [],
  },
  {
    id: 'mark',
    said: 'revision and serial written down',
    ask: 'Revision and serial number of its label are written down',
    ways: [],
  },
  {
    id: 'negotiated',
    said: 'the port reports its class',
    ask: 'The port of the switch reports the class that was planned',
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
    said: 'voltage holds with the illuminator on',
    ask: 'Voltage at the camera with its illuminator on, behind the whole length of cable',
    ways: ['dc', 'passive', 'usb'],
  },
  { id: 'charged', said: 'charged from the panel', ask: 'The panel charges it; the battery is full', ways: ['solar'] },
  { id: 'picture', said: 'the stream plays', ask: 'A probe gets its picture', ways: [], byProbe: true },
  {
    id: 'night',
    said: 'the illuminator works',
    ask: 'Cover the lens: the camera switches to night, its illuminator comes on',
    ways: [],
  },
  { id: 'held', said: 'ran for an hour', ask: 'It ran for an hour without interruption', ways: [] },
];

export const benchItemsFor = (way: string | null): readonly BenchItem[] =>
  BENCH_ITEMS.filter(({ ways }) => ways.length === 0 || (way !== null && ways.includes(way)));
