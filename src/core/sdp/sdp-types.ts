import type { Fault } from '../base/fault.ts';
import type { AacConfig } from './aac-config.ts';

export type MediaKind = 'video' | 'audio' | 'application';
export type MediaDirection = 'sendrecv' | 'sendonly' | 'recvonly' | 'inactive';

/** One m= section, read as far as a client that draws the stream needs it. */
export interface SdpMedia {
  readonly kind: MediaKind;
  readonly transport: string;
  /** The first format of the m= line: the one that will be drawn. */
  readonly payloadType: number | null;
  /** Encoding name in upper case; `null` when neither an rtpmap nor RFC 3551 names it. */
  readonly codec: string | null;
  readonly clockRate: number | null;
  readonly channels: number | null;
  readonly fmtp: Readonly<Record<string, string>>;
  readonly control: string;
  /** The same put together as RFC 3986 §5.2 has it, in place of the last part of the path; `null` where that is no other. */
  readonly otherControl: string | null;
  readonly direction: MediaDirection;
  readonly bandwidthKbps: number | null;
  readonly framerate: number | null;
  readonly dimensions: readonly [number, number] | null;
  readonly sps: {
    readonly width: number;
    readonly height: number;
    readonly fps: readonly [number, number] | null;
  } | null;
  readonly aac: AacConfig | null;
  /** Sound towards the camera (ONVIF Streaming §5.3): it is not drawn. */
  readonly backchannel: boolean;
}

export interface SdpSession {
  readonly name: string | null;
  /** URL of the aggregate control: PLAY and TEARDOWN go here. */
  readonly control: string;
  readonly range: string | null;
  readonly media: readonly SdpMedia[];
}

/** A line that is no SDP, or that says something its attribute cannot mean. `line` counts from 1. */
export type SdpFault = Fault<'sdp.malformed-line' | 'sdp.bad-value' | 'sdp.too-long' | 'sdp.not-sdp'>;
