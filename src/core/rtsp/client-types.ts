import type { Credentials } from '../auth/authorization.ts';
import type { ProofGate } from '../auth/proof-gate.ts';
import type { CertificateSeen } from '../net/certificate.ts';
import type { StreamUrl } from '../net/stream-url.ts';
import type { SdpFault, SdpMedia, SdpSession } from '../sdp/sdp-types.ts';
import type { ProbeCause, ProbeStepName, TapeEntry } from './exchange-types.ts';

/** How the packets come: inside the RTSP connection, beside it, or whichever the camera grants. */
export type TransportChoice = 'tcp' | 'udp' | 'auto';

export interface RtspClientOptions {
  readonly transport: TransportChoice;
  /** As it goes over the wire: what a path holds of a login filled in. */
  readonly url: StreamUrl;
  /** Tells a text without that login. */
  readonly hide: (text: string) => string;
  readonly credentials: Credentials | null;
  /** Asked before each proof of the account leaves. */
  readonly gate: ProofGate;
  /** The path itself holds the login: whatever is asked for it proves the account. */
  readonly provesInPath?: boolean;
  /** The certificate that the device is known by, SHA-256 with colons: to another one no proof is sent. */
  readonly knownFingerprint?: string | null;
  /** By any scheme that it asks for, the strongest first; or by Basic alone. */
  readonly loginBy?: 'any' | 'basic';
  readonly userAgent: string;
  /** Takes packets of media at once, instead of an effect for each: a stream is made of thousands. */
  readonly onRtp?: (track: Track, packet: Uint8Array, atMs: number) => void;
  /** False: hang up after SETUP, without a picture. */
  readonly play: boolean;
  /** Fresh random text for Digest; randomness belongs to the caller. */
  readonly cnonce: () => string;
}

/** What the world tells the client. `atMs` is a monotonic clock. */
export type ClientInput =
  | { readonly kind: 'connected'; readonly atMs: number; readonly certificate?: CertificateSeen | null }
  | { readonly kind: 'bytes'; readonly chunk: Uint8Array; readonly atMs: number }
  | { readonly kind: 'closed'; readonly atMs: number }
  | { readonly kind: 'answerTimer'; readonly atMs: number }
  | { readonly kind: 'keepAliveTimer'; readonly atMs: number }
  /** Two local ports for one track, RTP even and RTCP the next, or why there are none. */
  | { readonly kind: 'udpOpened'; readonly ports: readonly [number, number]; readonly atMs: number }
  | { readonly kind: 'udpFailed'; readonly note: string; readonly atMs: number }
  /** Came from the camera's address to the ports of the track set up as `place`. */
  | {
      readonly kind: 'datagram';
      readonly place: number;
      readonly isRtcp: boolean;
      readonly chunk: Uint8Array;
      readonly atMs: number;
    }
  /** An RTCP packet of ours, to go the way that the track's packets come. */
  | { readonly kind: 'sendRtcp'; readonly track: Track; readonly packet: Uint8Array; readonly atMs: number }
  | { readonly kind: 'stop'; readonly atMs: number };

export type TrackPath =
  | { readonly transport: 'tcp'; readonly rtpChannel: number; readonly rtcpChannel: number }
  | {
      readonly transport: 'udp';
      readonly clientPorts: readonly [number, number];
      /** `null` when the camera did not say; then no report can be sent to it. */
      readonly serverPorts: readonly [number, number] | null;
    };

/** One track that was set up: the media section and the way its packets come. */
export interface Track {
  readonly mediaIndex: number;
  readonly media: SdpMedia;
  /** Counted from 0 in the order of SETUP. */
  readonly place: number;
  readonly path: TrackPath;
}

/** What the client wants done or tells, as data. */
export type ClientEffect =
  | { readonly kind: 'send'; readonly bytes: Uint8Array }
  | { readonly kind: 'openUdp'; readonly place: number }
  | {
      readonly kind: 'sendDatagram';
      readonly place: number;
      readonly isRtcp: boolean;
      readonly port: number;
      readonly bytes: Uint8Array;
    }
  /** The peer closed: the same address is to be connected to again. */
  | { readonly kind: 'redial' }
  /** No longer than `mostMs`, where that is said. */
  | { readonly kind: 'armAnswer'; readonly mostMs?: number }
  | { readonly kind: 'disarmAnswer' }
  | { readonly kind: 'armKeepAlive'; readonly afterMs: number }
  | { readonly kind: 'close' }
  | { readonly kind: 'tape'; readonly entry: TapeEntry }
  | { readonly kind: 'stepBegan'; readonly name: ProbeStepName; readonly atMs: number }
  | {
      readonly kind: 'stepEnded';
      readonly name: ProbeStepName;
      readonly atMs: number;
      readonly ok: boolean;
      readonly status: number | null;
      readonly note: string | null;
    }
  | { readonly kind: 'described'; readonly session: SdpSession; readonly faults: readonly SdpFault[] }
  | { readonly kind: 'playing'; readonly tracks: readonly Track[]; readonly transportReason: string }
  | { readonly kind: 'rtp'; readonly track: Track; readonly packet: Uint8Array; readonly atMs: number }
  | { readonly kind: 'rtcp'; readonly track: Track; readonly packet: Uint8Array; readonly atMs: number }
  | { readonly kind: 'failed'; readonly cause: ProbeCause; readonly note: string }
  | { readonly kind: 'ended' };
