import { sayCount } from '../../../base/say.ts';
import type { FactValue } from './entry.ts';

/** A thing that can be known of something, with its unit. */
export interface Quantity {
  readonly label: string;
  /** Of its number; empty for words and yes or no. */
  readonly unit: string;
  readonly show?: (value: number) => string;
}

/** What a person reads somewhere and enters, or takes back by hand. The first view has these; the others load with whom they show to. */
export const HAND_QUANTITIES = {
  signalDbm: { label: 'signal', unit: 'dBm', show: (dbm) => `${Math.round(dbm)} dBm` },
  batteryC: { label: 'battery temperature', unit: '°C', show: (c) => `${c} °C` },
  'under.watts': { label: 'heat of the old phone', unit: 'W', show: (w) => `${w.toFixed(1)} W` },
  'under.mount': { label: 'position of the old phone', unit: '' },
  'under.roomC': { label: 'room temperature', unit: '°C', show: (c) => `${c} °C` },
  isSwollen: { label: 'swollen battery', unit: '' },
  'head.panDegPerS': { label: 'turns', unit: '°/s', show: (deg) => `${deg.toFixed(1)} °/s` },
  'head.panOffsetDeg': { label: 'PTZ dead time', unit: '°', show: (deg) => `${deg.toFixed(1)}°` },
  'head.panResidualDeg': { label: 'PTZ turn spread', unit: '°', show: (deg) => `${deg.toFixed(1)}°` },
  'head.velocity': { label: 'at a share of its top speed', unit: '' },
  'head.stopsLost': { label: 'stop commands lost', unit: '', show: sayCount },
  'head.keepsTimeout': { label: 'stops when its timeout is over', unit: '' },
} as const satisfies Readonly<Record<string, Quantity>>;
export type HandQuantity = keyof typeof HAND_QUANTITIES;

/** A value of a quantity, or of none that is known. */
export function sayValue(known: Quantity | undefined, value: FactValue): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return value;
  return known?.show?.(value) ?? `${value}${known?.unit ? ` ${known.unit}` : ''}`;
}
