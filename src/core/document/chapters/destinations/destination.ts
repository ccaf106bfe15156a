import type { SecretLimits } from '../../../auth/secret-limits.ts';
import type { Point } from '../../../base/plan-geometry.ts';
import type { LicencePack } from '../../../cost/licence-packs.ts';
import type { CameraLine } from '../../../net/camera-line.ts';

export const DESTINATION_KINDS = ['hub', 'recorder', 'viewer', 'relay'] as const;
export type DestinationKind = (typeof DESTINATION_KINDS)[number];

/** Ways in which a destination takes a picture in. */
export const PROTOCOLS = ['rtsp', 'rtsps', 'tunnel', 'onvif', 'http'] as const;
export type Protocol = (typeof PROTOCOLS)[number];
/** By which protocol RTSP comes over a line of a camera. */
export const PROTOCOL_OF_LINE = { plain: 'rtsp', tls: 'rtsps', tunnel: 'tunnel' } as const satisfies Record<
  CameraLine,
  Protocol
>;
export type RtspProtocol = (typeof PROTOCOL_OF_LINE)[CameraLine];
export const PROTOCOL_WORDS: Readonly<Record<Protocol, string>> = {
  rtsp: 'RTSP',
  rtsps: 'RTSP over TLS',
  tunnel: 'RTSP over HTTP',
  onvif: 'ONVIF',
  http: 'snapshots over HTTP',
};

/** Channels that it counts: how many came with it, and which packs of more are sold. */
export interface Seats {
  readonly included: number;
  readonly packs: readonly LicencePack[];
}

export interface Storage {
  readonly diskTB: number;
  readonly usableFraction: number;
  /** Of the disk. */
  readonly price: number | null;
}

export interface Destination {
  readonly id: string;
  readonly name: string;
  readonly kind: DestinationKind;
  /** Its own address; empty when not known. */
  readonly host: string;
  /** The network it is in, where no address says it. */
  readonly networkId: string | null;
  /** Codecs it takes; empty when not known. */
  readonly codecs: readonly string[];
  /** Codecs of sound that it takes; empty when not known. */
  readonly sounds: readonly string[];
  /** Protocols it takes; empty when not known. */
  readonly protocols: readonly Protocol[];
  /** Largest picture that it takes; `null` when not known. */
  readonly largest: { readonly widthPx: number; readonly heightPx: number } | null;
  readonly mostFps: number | null;
  readonly mostKbps: number | null;
  /** Streams that it decodes at once: to show them, or to look for something in them. */
  readonly decodes: number | null;
  /** `null` when it is not known to count any. */
  readonly seats: Seats | null;
  readonly storage: Storage | null;
  readonly retentionDays: number | null;
  /** What it takes of a secret that it logs in with. */
  readonly secretLimits: SecretLimits;
  readonly position: Point | null;
}
