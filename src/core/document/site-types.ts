import type { Point } from '../base/plan-geometry.ts';
import type { TapUse } from '../base/tap-uses.ts';
import type { RecordingSchedule } from '../storage/storage.ts';
import type { Model } from './cards/model-card.ts';
import {
  type Costing,
  EMPTY_COSTING,
  EMPTY_PLAN,
  type Feed,
  type Gear,
  type Link,
  type Mounting,
  type Need,
  type Plan,
  type Sky,
  UNKNOWN_SKY,
} from './planning-types.ts';

export const SITE_FORMAT = 'clear-tap/site';
export const SITE_VERSION = 3;

/** How a number is known, worst first; the best one wins. */
export const KNOWN_HOWS = ['assumed', 'planned', 'declared', 'measured', 'confirmed'] as const;
export type KnownHow = (typeof KNOWN_HOWS)[number];

export interface Network {
  readonly id: string;
  readonly name: string;
  readonly cidr: string;
  readonly gateway: string | null;
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
  readonly need: Need | null;
  readonly mounting: Mounting | null;
  readonly position: Point | null;
  /** Models that are weighed against the need. */
  readonly candidates: readonly string[];
  readonly feed: Feed | null;
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
export const UNPLANNED: Pick<Camera, 'need' | 'mounting' | 'position' | 'candidates' | 'feed'> = {
  need: null,
  mounting: null,
  position: null,
  candidates: [],
  feed: null,
};

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
  readonly position: Point | null;
}

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

/** A fact with its time and its source. `subject` is `camera:ID`, `stream:ID`, `tap:ID`, `gear:ID` or `link:ID`. */
export interface Evidence {
  readonly id: string;
  readonly subject: string;
  readonly quantity: string;
  readonly value: EvidenceValue;
  readonly how: KnownHow;
  readonly takenAt: string;
  readonly source: string;
}

export const LOG_KINDS = ['site', 'edit', 'choose', 'power', 'probe', 'tap', 'hand-over'] as const;
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
  readonly sky: Sky;
  readonly plan: Plan;
  readonly gear: readonly Gear[];
  readonly links: readonly Link[];
  readonly costing: Costing;
  /** Assumptions that somebody changed, by their id. */
  readonly assumptions: Readonly<Record<string, number>>;
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
  sky: UNKNOWN_SKY,
  plan: EMPTY_PLAN,
  gear: [],
  links: [],
  costing: EMPTY_COSTING,
  assumptions: {},
  models: [],
  cameras: [],
  destinations: [],
  taps: [],
  evidence: [],
  log: [],
});
