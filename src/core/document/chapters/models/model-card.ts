import type { SecretLimits } from '../../../auth/secret-limits.ts';
import type { PowerWay, RadioBand } from '../../../base/ways.ts';
import type { ReflashGuide } from '../../../firmware/guide.ts';
import type { CardLens } from '../../../optics/lens.ts';
import type { RadioKindId } from '../../../radio/radio-kinds.ts';

/** How a camera gives its picture on the local network, if it does. */
export const LOCAL_STREAMS = ['both', 'rtsp', 'onvif', 'account-only', 'after-reflash'] as const;
export type LocalStream = (typeof LOCAL_STREAMS)[number];
export const LOCAL_STREAM_WORDS: Readonly<Record<LocalStream, string>> = {
  both: 'RTSP, ONVIF',
  rtsp: 'RTSP',
  onvif: 'ONVIF',
  'account-only': 'account only',
  'after-reflash': 'after a reflash',
};

export const SOUNDS = ['none', 'hear', 'talk'] as const;
export type Sound = (typeof SOUNDS)[number];

export const LIGHT_KINDS = ['none', 'infrared', 'white', 'both'] as const;
export type LightKind = (typeof LIGHT_KINDS)[number];

/** What is lost without the maker's account: how many things, each how long. */
export const LOST_LIMITS = { most: 20, max: 120 } as const;
export const MODEL_NOTES_CHARS = 2000;

export interface SubStream {
  /** Empty when not known. */
  readonly codecs: readonly string[];
  readonly widthPx: number | null;
  readonly heightPx: number | null;
  readonly fps: number | null;
  /** With `{channel}`, `{user}` and `{password}` where they belong; empty when not known. */
  readonly path: string;
}

export interface CardLight {
  readonly kind: LightKind;
  readonly reachM: number | null;
  readonly angleDeg: number | null;
}

export interface ModelPower {
  readonly ways: readonly PowerWay[];
  /** IEEE 802.3 class that it asks for. */
  readonly poeClass: number | null;
  /** Range of a low-voltage input, V; a passive feed arrives there too. */
  readonly minVolts: number | null;
  readonly maxVolts: number | null;
  readonly dayW: number | null;
  /** With its light and heater on. */
  readonly nightW: number | null;
  /** Waiting for an event, nothing drawn. */
  readonly standbyW: number | null;
  readonly batteryWh: number | null;
  readonly supplyInBox: boolean | null;
}

/** Known to everybody, and so no secret. */
export interface FactoryLogin {
  readonly user: string;
  readonly secret: string;
}

/** One thing that a card has from a device: which field of it, what was seen, at which camera, and when. */
export interface Learnt {
  readonly field: string;
  readonly said: string;
  readonly at: string;
  readonly from: string;
}
/** As many are kept, of a field the last. */
export const MOST_LEARNT = 40;

/** What is known of a make and model. `null` is not known, never none; an empty list of sub streams is none. */
export interface Model {
  readonly id: string;
  readonly maker: string;
  readonly model: string;
  readonly hardwareRev: string;
  readonly localStream: LocalStream | null;
  /** Clients that it serves at once; `null` when not known. */
  readonly sessions: number | null;
  readonly lenses: readonly CardLens[];
  /** Of the main stream. */
  readonly codecs: readonly string[];
  readonly fps: number | null;
  /** Of the main stream, with `{channel}`, `{user}` and `{password}` where they belong; empty when not known. */
  readonly path: string;
  readonly rtspPort: number | null;
  readonly onvifPort: number | null;
  /** Pictures that hang off it: of a box more than one. */
  readonly channels: number | null;
  /** Where its stream is switched on, in words; empty when not known. */
  readonly streamSwitch: string;
  /** The login that every one of it comes with, as its leaflet prints it. */
  readonly factoryLogin: FactoryLogin | null;
  /** What its own accounts take. */
  readonly secretLimits: SecretLimits;
  /** Its maker offers a firmware that gives a stream, beside the usual one. */
  readonly hasSideBranch: boolean | null;
  /** How another firmware is written, as somebody found it out. */
  readonly reflash: ReflashGuide | null;
  readonly subs: readonly SubStream[] | null;
  /** 0 stands still. */
  readonly panRangeDeg: number | null;
  readonly tiltRangeDeg: number | null;
  readonly light: CardLight | null;
  /** Code of IEC 60529 without its letters: 66. */
  readonly ingress: number | null;
  readonly sound: Sound | null;
  readonly power: ModelPower;
  readonly wired: boolean | null;
  readonly bands: readonly RadioBand[];
  /** Its own radio, one of `RADIO_KINDS`: a link is as fast as its slower end. `null` when not known. */
  readonly radio: RadioKindId | null;
  /** What it transmits with; `null` when not known. */
  readonly radioDbm: number | null;
  /** Largest card that it takes; 0 has no slot. */
  readonly cardMaxGB: number | null;
  /** What is gone without the maker's account, in words; `null` when nobody looked. */
  readonly lostWithoutAccount: readonly string[] | null;
  /** Of one, in the currency of the site. */
  readonly price: number | null;
  /** Seats that it takes at a recorder which counts channels. */
  readonly seats: number;
  readonly notes: string;
  /** What a device of this model proved, and where. */
  readonly learnedFrom: readonly Learnt[];
}
