/**
 * What the planning assumes and no standard says: each can be changed for a site, and is shown as assumed where it is used.
 */
export const ASSUMPTIONS = [
  { id: 'optics.face-height', label: 'Height at which a face is looked at', value: 1.6, min: 0, max: 3, unit: 'm' },
  { id: 'optics.text-height', label: 'Height at which text is looked at', value: 1, min: 0, max: 10, unit: 'm' },
  { id: 'optics.steep', label: 'Looking down steeper than this loses faces', value: 30, min: 5, max: 80, unit: '°' },
  {
    id: 'optics.dark-ground',
    label: 'Reach of light over dark ground or wet leaves',
    value: 0.5,
    min: 0.1,
    max: 1,
    unit: 'of the rated',
  },
  {
    id: 'power.poe-headroom',
    label: 'Share of a switch’s budget that stays free',
    value: 0.1,
    min: 0,
    max: 0.5,
    unit: 'of the budget',
  },
  { id: 'power.poe-ohm', label: 'Loop resistance of network cable', value: 12.5, min: 5, max: 40, unit: 'Ω for 100 m' },
  { id: 'power.copper-clad', label: 'Copper-clad aluminium against copper', value: 1.55, min: 1, max: 2, unit: '×' },
  { id: 'power.usb-contacts', label: 'Contacts of a USB lead', value: 0.12, min: 0, max: 1, unit: 'Ω' },
  {
    id: 'power.performance',
    label: 'What panel and charger make of the light',
    value: 0.7,
    min: 0.3,
    max: 1,
    unit: 'of the rated',
  },
  {
    id: 'power.discharge',
    label: 'What a battery gives of what it holds',
    value: 0.85,
    min: 0.5,
    max: 1,
    unit: 'of its energy',
  },
  { id: 'power.cell-warm', label: 'Battery of a handset: too warm from', value: 45, min: 30, max: 60, unit: '°C' },
  { id: 'power.cell-hot', label: 'Battery of a handset: stop it from', value: 50, min: 35, max: 70, unit: '°C' },
  { id: 'handset.open', label: 'A handset in the open warms by', value: 9, min: 2, max: 40, unit: 'K for each watt' },
  { id: 'handset.metal', label: 'A handset on metal warms by', value: 6, min: 1, max: 40, unit: 'K for each watt' },
  { id: 'handset.closed', label: 'A handset in a case warms by', value: 16, min: 3, max: 60, unit: 'K for each watt' },
  {
    id: 'handset.capacity',
    label: 'A handset takes up heat',
    value: 150,
    min: 30,
    max: 1000,
    unit: 'J for each kelvin',
  },
  {
    id: 'link.detour',
    label: 'A cable is longer than the straight way by',
    value: 0.2,
    min: 0,
    max: 2,
    unit: 'of it',
  },
  {
    id: 'air.airtime-ok',
    label: 'Airtime up to which a channel is at ease',
    value: 0.4,
    min: 0.1,
    max: 0.9,
    unit: 'of the time',
  },
  {
    id: 'air.airtime-tight',
    label: 'Airtime up to which a channel just carries',
    value: 0.6,
    min: 0.1,
    max: 1,
    unit: 'of the time',
  },
  { id: 'air.signal-ok', label: 'Signal from which a picture is safe', value: -67, min: -90, max: -30, unit: 'dBm' },
  {
    id: 'air.signal-tight',
    label: 'Signal from which a picture just passes',
    value: -75,
    min: -95,
    max: -30,
    unit: 'dBm',
  },
  { id: 'air.wall-door', label: 'A door takes', value: 3, min: 0, max: 40, unit: 'dB' },
  { id: 'air.wall-plaster', label: 'A plaster wall takes', value: 4, min: 0, max: 40, unit: 'dB' },
  { id: 'air.wall-brick', label: 'A brick wall takes', value: 8, min: 0, max: 40, unit: 'dB' },
  { id: 'air.wall-stone', label: 'A wall of stone takes', value: 20, min: 0, max: 60, unit: 'dB' },
  { id: 'air.wall-glass', label: 'A window takes', value: 3, min: 0, max: 40, unit: 'dB' },
  { id: 'air.wall-fence', label: 'A fence or hedge takes', value: 2, min: 0, max: 40, unit: 'dB' },
  {
    id: 'air.powerline',
    label: 'Powerline carries of its sync rate',
    value: 0.4,
    min: 0.05,
    max: 1,
    unit: 'of the sync rate',
  },
  { id: 'link.ok', label: 'A wire is at ease up to', value: 0.5, min: 0.1, max: 0.95, unit: 'of its capacity' },
  { id: 'link.tight', label: 'A wire just carries up to', value: 0.75, min: 0.1, max: 1, unit: 'of its capacity' },
  {
    id: 'link.unknown-stream',
    label: 'A stream that nobody knows takes at most',
    value: 25,
    min: 1,
    max: 1000,
    unit: 'Mbit/s',
  },
  { id: 'stream.loss-ok', label: 'Loss that no picture shows', value: 0.001, min: 0, max: 0.1, unit: 'of the packets' },
  {
    id: 'stream.loss-tight',
    label: 'Loss that a picture survives',
    value: 0.01,
    min: 0,
    max: 0.5,
    unit: 'of the packets',
  },
  { id: 'stream.jitter-ok', label: 'Jitter that nobody notices', value: 30, min: 1, max: 1000, unit: 'ms' },
  { id: 'stream.jitter-tight', label: 'Jitter that is heavy from', value: 100, min: 1, max: 5000, unit: 'ms' },
  {
    id: 'stream.frames',
    label: 'Frames that must come',
    value: 0.9,
    min: 0.1,
    max: 1,
    unit: 'of the announced',
  },
  { id: 'stream.key-frame', label: 'Longest wait for a key frame', value: 4, min: 0.5, max: 60, unit: 's' },
  { id: 'stream.clock', label: 'Clock of a camera may be off by', value: 5, min: 1, max: 3600, unit: 's' },
  { id: 'stream.answer', label: 'An answer is slow from', value: 300, min: 10, max: 10_000, unit: 'ms' },
  { id: 'stream.session', label: 'A session is short below', value: 30, min: 5, max: 600, unit: 's of silence' },
  {
    id: 'cost.supply',
    label: 'A supply or a share of a switch, where none is in the box',
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
