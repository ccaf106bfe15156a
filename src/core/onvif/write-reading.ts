import type { OnvifReading } from './reading.ts';

// A reading as a journal keeps it: a text for the device, and one for each of its services, profiles, topics and presets,
// so that each is short. It is read back elsewhere (kept-reading.ts): the first page writes, and need not read.

/** Names of the facts that a reading is kept as. */
export const KEPT = {
  device: 'onvif.device',
  service: 'onvif.service',
  profile: 'onvif.profile',
  topic: 'onvif.topic',
  preset: 'onvif.preset',
} as const;

export interface KeptFact {
  readonly quantity: (typeof KEPT)[keyof typeof KEPT];
  readonly value: string;
}

/** As many of each are kept: together they fit an entry of the journal. */
const MOST = { service: 16, profile: 64, topic: 60, preset: 40 } as const;

/** @param mostChars of one text; what is longer is left out rather than cut */
export function writeReading(reading: OnvifReading, mostChars: number): readonly KeptFact[] {
  const { services, profiles, ptz, events } = reading;
  const device = {
    ...reading,
    services: [],
    profiles: [],
    ptz: ptz && { ...ptz, presets: ptz.presets && [] },
    events: events && { ...events, topics: [] },
  };
  const each = (
    quantity: KeptFact['quantity'],
    items: readonly object[] | readonly string[],
    most: number,
  ): readonly KeptFact[] => items.slice(0, most).map((item) => ({ quantity, value: JSON.stringify(item) }));
  return [
    { quantity: KEPT.device, value: JSON.stringify(device) } as const,
    ...each(KEPT.service, services, MOST.service),
    ...each(KEPT.profile, profiles, MOST.profile),
    ...each(KEPT.topic, events?.topics ?? [], MOST.topic),
    ...each(KEPT.preset, ptz?.presets ?? [], MOST.preset),
  ].filter(({ value }) => value.length <= mostChars);
}
