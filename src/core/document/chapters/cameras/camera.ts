import { STREAM_LIMITS } from '../../../base/limits.ts';
import type { Point } from '../../../base/plan-geometry.ts';
import { above0, between, wholes } from '../../../base/range.ts';
import type { Keeping } from '../../../net/address-plan.ts';
import type { CameraLine } from '../../../net/camera-line.ts';
import { PORT_RANGE } from '../../../net/port-range.ts';
import type { Feed } from './feed.ts';
import { type Identity, UNKNOWN_IDENTITY } from './identity.ts';
import type { Mounting } from './mounting.ts';
import type { Need } from './need.ts';
import type { OldPhone } from './old-phone.ts';
import { NO_STEERING, type Steering } from './ptz.ts';
import type { Reflash } from './reflash.ts';

export const CAMERA_KINDS = ['camera', 'handset', 'channel'] as const;
export type CameraKind = (typeof CAMERA_KINDS)[number];

/** `secretRef` points into the vault; the secret itself is never in the document. */
export interface Account {
  readonly user: string;
  readonly secretRef: string;
}

export interface Stream {
  readonly id: string;
  readonly label: string;
  /** Path and query, with its leading slash. */
  readonly path: string;
  readonly codec: string | null;
  readonly width: number | null;
  readonly height: number | null;
  readonly fps: number | null;
  readonly gopFrames: number | null;
  readonly bitrateKbps: number | null;
}

/** A memory card that is bought for it. */
export interface MemoryCard {
  readonly sizeGB: number;
  readonly price: number | null;
}

export interface Camera {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly kind: CameraKind;
  readonly modelId: string | null;
  /** Which channel of a box or an encoder it is; paths of a card ask for it as `{channel}`. */
  readonly channel: number | null;
  readonly host: string;
  readonly ports: { readonly rtsp: number };
  /** How RTSP comes from that port. */
  readonly line: CameraLine;
  /** Where its ONVIF service listens; `null` while nobody said, and the card’s counts. */
  readonly onvifPort: number | null;
  /** ONVIF is asked over TLS there. */
  readonly onvifTls: boolean;
  readonly identity: Identity;
  /** How its address stays; `null` while nobody decided. */
  readonly keeping: Keeping | null;
  /** What draws its streams logs in with it. */
  readonly account: Account | null;
  /** Who sets it up; nothing that draws uses it. */
  readonly adminAccount: Account | null;
  readonly streams: readonly Stream[];
  readonly need: Need | null;
  readonly mounting: Mounting | null;
  readonly position: Point | null;
  /** Models that are weighed against the need. */
  readonly candidates: readonly string[];
  readonly feed: Feed | null;
  readonly memoryCard: MemoryCard | null;
  /** Another firmware for it, as far as it is decided; `null` while nobody thought of one. */
  readonly reflash: Reflash | null;
  /** How it serves, where it is an old handset. */
  readonly handset: OldPhone | null;
  /** Places its head comes back to, and rounds through them. */
  readonly steering: Steering;
}

/** A stream of which only label and path are known. */
export const UNKNOWN_STREAM = {
  codec: null,
  width: null,
  height: null,
  fps: null,
  gopFrames: null,
  bitrateKbps: null,
} as const satisfies Omit<Stream, 'id' | 'label' | 'path'>;

/** What a camera has before anybody planned it. */
export const UNPLANNED: Pick<
  Camera,
  | 'channel'
  | 'line'
  | 'adminAccount'
  | 'identity'
  | 'keeping'
  | 'need'
  | 'mounting'
  | 'position'
  | 'candidates'
  | 'feed'
  | 'memoryCard'
  | 'reflash'
  | 'handset'
  | 'onvifPort'
  | 'onvifTls'
  | 'steering'
> = {
  channel: null,
  line: 'plain',
  adminAccount: null,
  identity: UNKNOWN_IDENTITY,
  keeping: null,
  need: null,
  mounting: null,
  position: null,
  candidates: [],
  feed: null,
  memoryCard: null,
  reflash: null,
  handset: null,
  onvifPort: null,
  onvifTls: false,
  steering: NO_STEERING,
};

/** What its numbers may be. */
export const CAMERA_RANGES = {
  channel: wholes(1, 256),
  rtspPort: PORT_RANGE,
  cardGB: above0(100_000, 'GB'),
  price: between(0, 1e7),
} as const;

/** The same of a stream as it is planned. */
export const STREAM_RANGES = {
  sidePx: wholes(1, STREAM_LIMITS.sidePx, 'px'),
  fps: above0(STREAM_LIMITS.fps),
  gopFrames: wholes(1, STREAM_LIMITS.gopFrames, 'frames'),
  bitrateKbps: above0(STREAM_LIMITS.bitrateKbps, 'kbit/s'),
} as const;
