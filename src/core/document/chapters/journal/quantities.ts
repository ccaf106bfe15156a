import { sayCount, sayFps, sayMs, sayRate, sayShare } from '../../../base/say.ts';
import type { FactValue } from './entry.ts';
import { HAND_QUANTITIES, type Quantity, sayValue } from './hand-quantities.ts';

const sayChannels = (count: number): string => (count === 1 ? 'mono' : count === 2 ? 'stereo' : `${count} channels`);

/**
 * All quantities that entries are written with. What a file from outside names beside them is kept and shown by its name.
 */
export const QUANTITIES = {
  ...HAND_QUANTITIES,
  codec: { label: 'codec', unit: '' },
  profile: { label: 'profile', unit: '' },
  width: { label: 'width', unit: 'px' },
  height: { label: 'height', unit: 'px' },
  fps: { label: 'frame rate', unit: '1/s', show: sayFps },
  bitrateKbps: { label: 'bit rate', unit: 'kbit/s', show: sayRate },
  keyframeIntervalFrames: { label: 'key-frame interval', unit: 'frames', show: sayCount },
  keyframeIntervalSeconds: { label: 'key-frame interval', unit: 's', show: (s) => `${s.toFixed(2)} s` },
  lossRatio: { label: 'packet loss', unit: 'share', show: sayShare },
  jitterMs: { label: 'jitter', unit: 'ms', show: sayMs },
  longestGapMs: { label: 'longest gap', unit: 'ms', show: sayMs },
  meanJitterMs: { label: 'mean jitter', unit: 'ms', show: sayMs },
  'sound.codec': { label: 'audio', unit: '' },
  'sound.clockHz': { label: 'audio sampling rate', unit: 'Hz', show: (hz) => `${Number((hz / 1000).toFixed(1))} kHz` },
  'sound.channels': { label: 'audio channels', unit: '', show: sayChannels },
  'sound.bitrateKbps': { label: 'audio bit rate', unit: 'kbit/s', show: sayRate },
  'sound.lossRatio': { label: 'audio loss', unit: 'share', show: sayShare },
  transport: { label: 'transport', unit: '' },
  'tls.trusted': { label: 'trusted certificate, SHA-256', unit: '' },
  handedOver: { label: 'handed over', unit: '' },
  'reflash.step': { label: 'step of the reflash', unit: '' },
  'reflash.rehearsed.onward': { label: 'rehearsed, tries', unit: '', show: sayCount },
  'reflash.rehearsed.back': { label: 'rehearsed going back, tries', unit: '', show: sayCount },
  'card.fileName': { label: 'name on the SD card', unit: '' },
  'card.sha256': { label: 'SHA-256 on the SD card', unit: '' },
  'card.bytes': { label: 'size on the SD card', unit: 'bytes', show: sayCount },
} as const satisfies Readonly<Record<string, Quantity>>;
export type QuantityName = keyof typeof QUANTITIES;

const catalogue: Readonly<Record<string, Quantity>> = QUANTITIES;

/** A value as a screen or a file says it. */
export const sayQuantity = (quantity: string, value: FactValue): string =>
  sayValue(Object.hasOwn(catalogue, quantity) ? catalogue[quantity] : undefined, value);
