import type { Credentials } from '../auth/authorization.ts';
import type { StreamUrl } from '../net/stream-url.ts';
import type { ProbeCause, ProbeStepName, TapeEntry } from '../probe/probe-types.ts';
import type { SdpFault, SdpMedia, SdpSession } from '../sdp/sdp-types.ts';

export interface RtspClientOptions {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly userAgent: string;
  /** False: hang up after SETUP, without a picture. */
  readonly play: boolean;
  /** Fresh random text for Digest; randomness belongs to the caller. */
  readonly cnonce: () => string;
}

/** What the world tells the client. `atMs` is a monotonic clock. */
export type ClientInput =
  | { readonly kind: 'connected'; readonly atMs: number }
  | { readonly kind: 'bytes'; readonly chunk: Uint8Array; readonly atMs: number }
  | { readonly kind: 'closed'; readonly atMs: number }
  | { readonly kind: 'answerTimer'; readonly atMs: number }
  | { readonly kind: 'keepAliveTimer'; readonly atMs: number }
  | { readonly kind: 'stop'; readonly atMs: number };

/** One track that was set up: the media section and the channels that carry it. */
export interface Track {
  readonly mediaIndex: number;
  readonly media: SdpMedia;
  readonly rtpChannel: number;
  readonly rtcpChannel: number;
}

/** What the client wants done or tells, as data. */
export type ClientEffect =
  | { readonly kind: 'send'; readonly bytes: Uint8Array }
  | { readonly kind: 'armAnswer' }
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
  | { readonly kind: 'playing'; readonly tracks: readonly Track[] }
  | { readonly kind: 'rtp'; readonly track: Track; readonly packet: Uint8Array; readonly atMs: number }
  | { readonly kind: 'rtcp'; readonly track: Track; readonly packet: Uint8Array; readonly atMs: number }
  | { readonly kind: 'failed'; readonly cause: ProbeCause; readonly note: string }
  | { readonly kind: 'ended' };
