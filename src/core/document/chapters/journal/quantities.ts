import { sayCount, sayFps, sayMs, sayRate, sayShare, sayStretch } from '../../../base/say.ts';
import type { FactValue } from './entry.ts';
import { HAND_QUANTITIES, type Quantity, sayValue } from './hand-quantities.ts';

const sayChannels = (count: number): string => (count === 1 ? 'mono' : count === 2 ? 'stereo' : `${count} channels`);

/**
 * All quantities that entries are written with. What a file from outside names beside them is kept and shown by its name.
 * `fact.` is what the rules about a probe are judged by: they are judged again whenever it is opened.
 */
export const QUANTITIES = {
  ...HAND_QUANTITIES,
  codec: { label: 'codec', unit: '' },
  profile: { label: 'profile', unit: '' },
  width: { label: 'width', unit: 'px' },
  height: { label: 'height', unit: 'px' },
  fps: { label: 'frames a second', unit: '1/s', show: sayFps },
  bitrateKbps: { label: 'bit rate', unit: 'kbit/s', show: sayRate },
  keyframeIntervalFrames: { label: 'key frame every', unit: 'frames', show: sayCount },
  keyframeIntervalSeconds: { label: 'key frame every', unit: 's', show: (s) => `${s.toFixed(2)} s` },
  lossRatio: { label: 'packets lost', unit: 'share', show: sayShare },
  jitterMs: { label: 'jitter', unit: 'ms', show: sayMs },
  'sound.codec': { label: 'sound', unit: '' },
  'sound.clockHz': { label: 'clock of the sound', unit: 'Hz', show: (hz) => `${Number((hz / 1000).toFixed(1))} kHz` },
  'sound.channels': { label: 'channels of sound', unit: '', show: sayChannels },
  'sound.bitrateKbps': { label: 'rate of the sound', unit: 'kbit/s', show: sayRate },
  'sound.lossRatio': { label: 'sound lost', unit: 'share', show: sayShare },
  transport: { label: 'transport', unit: '' },
  'probe.verdict': { label: 'verdict of the probe', unit: '' },
  'probe.url': { label: 'probed', unit: '' },
  'probe.cause': { label: 'cause', unit: '' },
  'probe.note': { label: 'what it said', unit: '' },
  'probe.reason': { label: 'reason', unit: '' },
  'tls.trusted': { label: 'trusted certificate, SHA-256', unit: '' },
  'probe.proof': { label: 'by experiment', unit: '' },
  'found.path': { label: 'found at the path', unit: '' },
  'found.port': { label: 'found at the port', unit: '', show: (port) => String(port) },
  'found.line': { label: 'found by the line', unit: '' },
  handedOver: { label: 'handed over', unit: '' },
  'reflash.step': { label: 'step of the reflash', unit: '' },
  'reflash.rehearsed.onward': { label: 'rehearsed, tries', unit: '', show: sayCount },
  'reflash.rehearsed.back': { label: 'rehearsed going back, tries', unit: '', show: sayCount },
  'card.fileName': { label: 'name on the card', unit: '' },
  'card.sha256': { label: 'SHA-256 on the card', unit: '' },
  'card.bytes': { label: 'size on the card', unit: 'bytes', show: sayCount },
  'sweep.range': { label: 'looked through', unit: '' },
  'sweep.isWhole': { label: 'to its end', unit: '' },
  'sweep.host': { label: 'seen', unit: '' },
  'onvif.device': { label: 'read by ONVIF', unit: '' },
  'onvif.service': { label: 'service', unit: '' },
  'onvif.profile': { label: 'profile', unit: '' },
  'onvif.topic': { label: 'topic', unit: '' },
  'onvif.preset': { label: 'preset of the head', unit: '' },
  'heard.seconds': { label: 'listened', unit: 's', show: (s) => `${Math.round(s)} s` },
  'heard.changes': { label: 'events', unit: '', show: sayCount },
  'heard.motions': { label: 'motions', unit: '', show: sayCount },
  'heard.lost': { label: 'subscriptions lost', unit: '', show: sayCount },
  'heard.kinds': { label: 'told of', unit: '' },
  'heard.note': { label: 'what it said', unit: '' },
  'sessions.host': { label: 'sessions counted at', unit: '' },
  'sessions.limit': { label: 'sessions at once', unit: '', show: sayCount },
  'sessions.played': { label: 'sessions that played', unit: '', show: sayCount },
  'sessions.most': { label: 'sessions asked for', unit: '', show: sayCount },
  'sessions.cause': { label: 'one more is refused as', unit: '' },
  'sessions.status': { label: 'one more is told', unit: '' },
  'sessions.note': { label: 'what it said', unit: '' },
  'sessions.effect': { label: 'what one more does to the first', unit: '' },
  'sessions.alonePerS': { label: 'packets a second alone', unit: '1/s', show: sayFps },
  'sessions.besidePerS': { label: 'packets a second beside others', unit: '1/s', show: sayFps },
  'sessions.closed': { label: 'goodbyes answered', unit: '', show: sayCount },
  'fact.clockErrorS': { label: 'clock error', unit: 's', show: sayStretch },
} as const satisfies Readonly<Record<string, Quantity>>;
export type QuantityName = keyof typeof QUANTITIES;

const catalogue: Readonly<Record<string, Quantity>> = QUANTITIES;

/** A value as a screen or a file says it. */
export const sayQuantity = (quantity: string, value: FactValue): string =>
  sayValue(Object.hasOwn(catalogue, quantity) ? catalogue[quantity] : undefined, value);
