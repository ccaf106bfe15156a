import type { RecordingSchedule } from '../storage/storage.ts';

export const SITE_FORMAT = 'clear-tap/site';
export const SITE_VERSION = 2;

/** How a number is known, worst first; the best one wins. */
export const KNOWN_HOWS = ['assumed', 'planned', 'declared', 'measured', 'confirmed'] as const;
export type KnownHow = (typeof KNOWN_HOWS)[number];

export interface Network {
  readonly id: string;
  readonly name: string;
  readonly cidr: string;
  readonly gateway: string | null;
}

export interface Model {
  readonly id: string;
  readonly maker: string;
  readonly model: string;
  /** Clients that it serves at once; `null` when not known. */
  readonly sessions: number | null;
}

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

export interface Camera {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly kind: CameraKind;
  readonly modelId: string | null;
  readonly host: string;
  readonly ports: { readonly rtsp: number };
  readonly account: Account | null;
  readonly streams: readonly Stream[];
}

export const DESTINATION_KINDS = ['hub', 'recorder', 'viewer', 'relay'] as const;
export type DestinationKind = (typeof DESTINATION_KINDS)[number];

export interface Destination {
  readonly id: string;
  readonly name: string;
  readonly kind: DestinationKind;
  /** Codecs it takes; empty when not known. */
  readonly codecs: readonly string[];
  readonly storage: { readonly diskTB: number; readonly usableFraction: number } | null;
  readonly retentionDays: number | null;
}

export const TAP_USES = ['record', 'live', 'detect', 'still'] as const;
export type TapUse = (typeof TAP_USES)[number];

export interface Tap {
  readonly id: string;
  readonly cameraId: string;
  readonly streamId: string;
  readonly destinationId: string;
  readonly use: TapUse;
  readonly protocol: 'rtsp';
  readonly schedule: RecordingSchedule;
}

export type EvidenceValue = string | number | boolean;

/** A fact with its time and its source. `subject` is `camera:ID`, `stream:ID` or `tap:ID`. */
export interface Evidence {
  readonly id: string;
  readonly subject: string;
  readonly quantity: string;
  readonly value: EvidenceValue;
  readonly how: KnownHow;
  readonly takenAt: string;
  readonly source: string;
}

export const LOG_KINDS = ['site', 'edit', 'probe', 'tap', 'hand-over'] as const;
export type LogKind = (typeof LOG_KINDS)[number];

export interface LogEntry {
  readonly id: string;
  readonly at: string;
  readonly kind: LogKind;
  /** `site`, `camera:ID`, `destination:ID` or `tap:ID`. */
  readonly subject: string;
  readonly text: string;
  /** Numbers behind the text: name and value, as they were then. */
  readonly refs: readonly { readonly name: string; readonly value: string }[];
}

export interface Site {
  readonly format: typeof SITE_FORMAT;
  readonly version: typeof SITE_VERSION;
  readonly id: string;
  readonly name: string;
  readonly notes: string;
  readonly networks: readonly Network[];
  readonly models: readonly Model[];
  readonly cameras: readonly Camera[];
  readonly destinations: readonly Destination[];
  readonly taps: readonly Tap[];
  readonly evidence: readonly Evidence[];
  readonly log: readonly LogEntry[];
}

export const emptySite = (id: string, name: string): Site => ({
  format: SITE_FORMAT,
  version: SITE_VERSION,
  id,
  name,
  notes: '',
  networks: [],
  models: [],
  cameras: [],
  destinations: [],
  taps: [],
  evidence: [],
  log: [],
});
