import type { FeedFormat } from './pictures/picture-feed.ts';

export interface StreamPersonality {
  readonly label: string;
  readonly path: string;
  readonly format: FeedFormat;
}

/** How a simulated camera behaves: the healthy one, and the ways real ones fail. */
export interface Personality {
  readonly name: string;
  /** Its address in the simulated network. */
  readonly host: string;
  readonly port: number;
  readonly server: string;
  readonly realm: string;
  readonly account: { readonly user: string; readonly password: string } | null;
  readonly digestQop: 'auth' | null;
  readonly sessionTimeoutS: number;
  readonly maxSessions: number;
  /** Every n-th packet is dropped; `null` drops none. */
  readonly dropEvery: number | null;
  /** Longest RTP payload: radios cut finer. */
  readonly maxPayloadBytes: number;
  /** Stops sending this long after PLAY, without a word; `null` never. */
  readonly stopsAfterMs: number | null;
  readonly streams: readonly StreamPersonality[];
}

const GOP_SECONDS = 2;
const main = { width: 960, height: 540, fps: 12, groupFrames: 12 * GOP_SECONDS } as const;
const sub = { width: 480, height: 270, fps: 6, groupFrames: 6 * GOP_SECONDS } as const;

/** A healthy wired dome over the sluice. */
export const SLUICE_RAIL: Personality = {
  name: 'Sluice rail',
  host: '10.77.4.21',
  port: 554,
  server: 'Ostrel/2.4',
  realm: 'Ostrel PD-5',
  account: { user: 'mill-viewer', password: 'Weir & Gate/7' },
  digestQop: 'auth',
  sessionTimeoutS: 60,
  maxSessions: 6,
  dropEvery: null,
  maxPayloadBytes: 1400,
  stopsAfterMs: null,
  streams: [
    { label: 'main', path: '/live/main', format: { scene: 'sluice', label: 'Sluice rail', quantiser: 23, ...main } },
    { label: 'sub', path: '/live/sub', format: { scene: 'sluice', label: 'Sluice rail', quantiser: 24, ...sub } },
  ],
};

/** A low-cost pan camera at the edge of the Wi-Fi: one packet in 125 never arrives. */
export const BOOT_ROOM: Personality = {
  name: 'Boot room',
  host: '10.77.4.27',
  port: 8554,
  server: 'qb-rtspd 0.9',
  realm: 'Quillbrook',
  account: { user: 'boot-viewer', password: 'oiled#laces' },
  digestQop: null,
  sessionTimeoutS: 60,
  maxSessions: 4,
  dropEvery: 125,
  maxPayloadBytes: 700,
  stopsAfterMs: null,
  streams: [
    { label: 'main', path: '/ch0', format: { scene: 'boot-room', label: 'Boot room', quantiser: 25, ...main } },
    { label: 'sub', path: '/ch1', format: { scene: 'boot-room', label: 'Boot room', quantiser: 25, ...sub } },
  ],
};
