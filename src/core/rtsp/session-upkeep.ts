import type { ClientEffect, Track } from './client-types.ts';
import { DEFAULT_SESSION_TIMEOUT_S } from './transport.ts';

/** Longest wait between signs of life, whatever the session timeout. */
const MAX_KEEP_ALIVE_MS = 30_000;
/** RFC 2326 §10.12: "$" starts an interleaved frame. */
const DOLLAR = 0x24;

/** When the next sign of life is due: twice within the session's timeout. */
export const keepAliveAfterMs = (sessionTimeoutS: number | null): number =>
  Math.min(MAX_KEEP_ALIVE_MS, ((sessionTimeoutS ?? DEFAULT_SESSION_TIMEOUT_S) * 1000) / 2);

/** The method that keeps a session alive: GET_PARAMETER without a body (RFC 2326 §10.8), OPTIONS where it is not offered. */
export const keepAliveMethod = (methods: string): 'GET_PARAMETER' | 'OPTIONS' =>
  /\bGET_PARAMETER\b/.test(methods) ? 'GET_PARAMETER' : 'OPTIONS';

/**
 * Sends an RTCP packet of ours the way that its track's packets come: inside the connection, or to the port that the camera
 * named. `null` when it named none.
 */
export function rtcpEffect({ path, place }: Track, packet: Uint8Array): ClientEffect | null {
  if (path.transport === 'tcp') {
    const head = Uint8Array.of(DOLLAR, path.rtcpChannel, packet.length >> 8, packet.length & 0xff);
    return { kind: 'send', bytes: Uint8Array.of(...head, ...packet) };
  }
  if (!path.serverPorts) return null;
  return { kind: 'sendDatagram', place, isRtcp: true, port: path.serverPorts[1], bytes: packet };
}
