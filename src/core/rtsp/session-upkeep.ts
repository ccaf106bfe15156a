import type { ClientEffect, Track } from './client-types.ts';
import { DEFAULT_SESSION_TIMEOUT_S } from './transport.ts';

/** Longest wait between keep-alives, whatever the session timeout. */
const MAX_KEEP_ALIVE_MS = 30_000;
/** RFC 2326 §10.12: "$" starts an interleaved frame. */
const DOLLAR = 0x24;

/** When the next keep-alive is due: twice within the session's timeout. */
export const keepAliveAfterMs = (sessionTimeoutS: number | null): number =>
  Math.min(MAX_KEEP_ALIVE_MS, ((sessionTimeoutS ?? DEFAULT_SESSION_TIMEOUT_S) * 1000) / 2);

/** In the order in which they are tried: without a body the first two say nothing else (RFC 2326 §10.8, §10.9). */
const SIGNS = ['GET_PARAMETER', 'SET_PARAMETER'] as const;
/** What everybody answers. */
const LAST = 'OPTIONS';
/** What a server answers to a request that it does not take. Source: RFC 2326 §7.1.1, §11. */
const NOT_TAKEN: ReadonlySet<number> = new Set([400, 404, 405, 451, 455, 501, 551]);

/** By which request a session is kept alive: one that the server offers; where it refuses that, the next. */
export class KeepAlives {
  #refused: string[] = [];

  /** @param methods the server's own list, from its Public header */
  next(methods: string): string {
    const isOffered = (method: string): boolean => new RegExp(`\\b${method}\\b`).test(methods);
    return SIGNS.find((method) => isOffered(method) && !this.#refused.includes(method)) ?? LAST;
  }
  /** @returns whether another one is worth trying at once */
  answered(method: string, status: number): boolean {
    if (!NOT_TAKEN.has(status) || method === LAST || this.#refused.includes(method)) return false;
    this.#refused.push(method);
    return true;
  }
  /** What it offered and refused first; `null` where it took what it offered. */
  get refused(): string | null {
    return this.#refused[0] ?? null;
  }
}

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
