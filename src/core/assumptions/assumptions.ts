/**
 * What the planning assumes and no standard says: each can be changed for a site, and is shown as assumed where it is used.
 */
export const ASSUMPTIONS = [
  { id: 'optics.face-height', label: 'Height at which a face is judged', value: 1.6, min: 0, max: 3, unit: 'm' },
  { id: 'optics.text-height', label: 'Height at which text is judged', value: 1, min: 0, max: 10, unit: 'm' },
  { id: 'optics.steep', label: 'Steepest view down on a face', value: 30, min: 5, max: 80, unit: '°' },
  {
    id: 'optics.dark-ground',
    label: 'Illuminator range over dark ground or wet leaves',
    value: 0.5,
    min: 0.1,
    max: 1,
    unit: 'of the rated',
  },
  {
    id: 'power.poe-headroom',
    label: 'Share of a PoE budget kept free',
    value: 0.1,
    min: 0,
    max: 0.5,
    unit: 'of the budget',
  },
  { id: 'power.poe-ohm', label: 'Loop resistance of network cable', value: 12.5, min: 5, max: 40, unit: 'Ω for 100 m' },
  { id: 'power.copper-clad', label: 'Copper-clad aluminium against copper', value: 1.55, min: 1, max: 2, unit: '×' },
  { id: 'power.usb-contacts', label: 'Contacts of a USB cable', value: 0.12, min: 0, max: 1, unit: 'Ω' },
  {
    id: 'power.performance',
    label: 'Solar performance ratio (panel and charge controller)',
    value: 0.7,
    min: 0.3,
    max: 1,
    unit: 'of the rated',
  },
  {
    id: 'power.discharge',
    label: 'Usable share of a battery, after losses',
    value: 0.85,
    min: 0.5,
    max: 1,
    unit: 'of its capacity',
  },
  { id: 'power.cell-warm', label: 'Old phone: battery warm from', value: 45, min: 30, max: 60, unit: '°C' },
  { id: 'power.cell-hot', label: 'Old phone: battery too hot from', value: 50, min: 35, max: 70, unit: '°C' },
  {
    id: 'handset.open',
    label: 'Old phone in the open heats up by',
    value: 9,
    min: 2,
    max: 40,
    unit: 'K for each watt',
  },
  { id: 'handset.metal', label: 'Old phone on metal heats up by', value: 6, min: 1, max: 40, unit: 'K for each watt' },
  {
    id: 'handset.closed',
    label: 'Old phone in a case heats up by',
    value: 16,
    min: 3,
    max: 60,
    unit: 'K for each watt',
  },
  {
    id: 'handset.capacity',
    label: 'Heat capacity of an old phone',
    value: 150,
    min: 30,
    max: 1000,
    unit: 'J for each kelvin',
  },
  {
    id: 'link.detour',
    label: 'A cable is longer than the straight line by',
    value: 0.2,
    min: 0,
    max: 2,
    unit: 'of it',
  },
  {
    id: 'air.airtime-ok',
    label: 'Airtime of a channel, comfortable up to',
    value: 0.4,
    min: 0.1,
    max: 0.9,
    unit: 'of the time',
  },
  {
    id: 'air.airtime-tight',
    label: 'Airtime of a channel, at most',
    value: 0.6,
    min: 0.1,
    max: 1,
    unit: 'of the time',
  },
  { id: 'air.signal-ok', label: 'Signal that is safe from', value: -67, min: -90, max: -30, unit: 'dBm' },
  {
    id: 'air.signal-tight',
    label: 'Signal that is usable from',
    value: -75,
    min: -95,
    max: -30,
    unit: 'dBm',
  },
  { id: 'air.wall-door', label: 'Loss through a door', value: 3, min: 0, max: 40, unit: 'dB' },
  { id: 'air.wall-plaster', label: 'Loss through a plaster wall', value: 4, min: 0, max: 40, unit: 'dB' },
  { id: 'air.wall-brick', label: 'Loss through a brick wall', value: 8, min: 0, max: 40, unit: 'dB' },
  { id: 'air.wall-stone', label: 'Loss through a stone wall', value: 20, min: 0, max: 60, unit: 'dB' },
  { id: 'air.wall-glass', label: 'Loss through a window', value: 3, min: 0, max: 40, unit: 'dB' },
  { id: 'air.wall-fence', label: 'Loss through a fence or hedge', value: 2, min: 0, max: 40, unit: 'dB' },
  {
    id: 'air.powerline',
    label: 'Powerline throughput',
    value: 0.4,
    min: 0.05,
    max: 1,
    unit: 'of the sync rate',
  },
  {
    id: 'link.ok',
    label: 'Load of a wired link, comfortable up to',
    value: 0.5,
    min: 0.1,
    max: 0.95,
    unit: 'of its capacity',
  },
  { id: 'link.tight', label: 'Load of a wired link, at most', value: 0.75, min: 0.1, max: 1, unit: 'of its capacity' },
  {
    id: 'link.unknown-stream',
    label: 'Rate assumed for an unknown stream',
    value: 25,
    min: 1,
    max: 1000,
    unit: 'Mbit/s',
  },
  {
    id: 'stream.loss-ok',
    label: 'Packet loss, acceptable up to',
    value: 0.001,
    min: 0,
    max: 0.1,
    unit: 'of the packets',
  },
  {
    id: 'stream.loss-tight',
    label: 'Packet loss, at most',
    value: 0.01,
    min: 0,
    max: 0.5,
    unit: 'of the packets',
  },
  { id: 'stream.jitter-ok', label: 'Jitter, acceptable up to', value: 30, min: 1, max: 1000, unit: 'ms' },
  { id: 'stream.jitter-tight', label: 'Jitter, at most', value: 100, min: 1, max: 5000, unit: 'ms' },
  {
    id: 'stream.frames',
    label: 'Frames that must arrive',
    value: 0.9,
    min: 0.1,
    max: 1,
    unit: 'of the announced rate',
  },
  { id: 'stream.key-frame', label: 'Longest key-frame interval', value: 4, min: 0.5, max: 60, unit: 's' },
  { id: 'stream.clock', label: 'Clock of a camera may be off by', value: 5, min: 1, max: 3600, unit: 's' },
  { id: 'stream.answer', label: 'Response is slow from', value: 300, min: 10, max: 10_000, unit: 'ms' },
  {
    id: 'stream.session',
    label: 'Session timeout is short below',
    value: 30,
    min: 5,
    max: 600,
    unit: 's without a request',
  },
  {
    id: 'cost.supply',
    label: 'Power supply, where none is in the box',
    value: 15,
    min: 0,
    max: 1000,
    unit: 'each',
  },
] as const;
export type AssumptionId = (typeof ASSUMPTIONS)[number]['id'];

/** The row of an id; a site may hold one of a version that knows more. */
export const assumptionOf = (id: string): (typeof ASSUMPTIONS)[number] | undefined =>
  ASSUMPTIONS.find((assumption) => assumption.id === id);

/** Changed values by id, as a site keeps them. */
export type ChangedAssumptions = Readonly<Record<string, number>>;

const DELIVERED: ReadonlyMap<string, number> = new Map(ASSUMPTIONS.map(({ id, value }) => [id, value]));

/** What is assumed here: as somebody changed it for this site, else as delivered. */
export const assumed = (changed: ChangedAssumptions, id: AssumptionId): number =>
  changed[id] ?? DELIVERED.get(id) ?? Number.NaN;
