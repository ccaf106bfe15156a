/** What a SETUP answer says about the path of one track. */
export interface TransportAnswer {
  readonly interleaved: readonly [number, number] | null;
  readonly clientPorts: readonly [number, number] | null;
  readonly serverPorts: readonly [number, number] | null;
  /** Whether the lower transport is TCP, or UDP (the default of RTP/AVP); `null` when it is not named. */
  readonly lower: 'tcp' | 'udp' | null;
  readonly ssrc: number | null;
}

/** `name=first[-second]`; the second is the first plus one when it is left out. Port 0 is none (RFC 768, RFC 6335 §6). */
function pairOf(value: string, name: string, min: number, max: number): readonly [number, number] | null {
  const match = new RegExp(`(?:^|;)\\s*${name}\\s*=\\s*(\\d{1,5})(?:-(\\d{1,5}))?`, 'i').exec(value);
  if (!match) return null;
  const first = Number(match[1]);
  const second = match[2] === undefined ? first + 1 : Number(match[2]);
  const isIn = (number: number): boolean => number >= min && number <= max;
  return isIn(first) && isIn(second) ? [first, second] : null;
}

/** Longer ones are no camera's: a Transport header names one transport or a handful. */
const MAX_HEADER_CHARS = 1024;

/** Reads a Transport header of a SETUP request or response. Source: RFC 2326 §12.39. */
export function parseTransport(header: string): TransportAnswer {
  const value = header.slice(0, MAX_HEADER_CHARS);
  const ssrc = /(?:^|;)\s*ssrc\s*=\s*([0-9a-f]{1,8})\s*(?:;|$)/i.exec(value);
  const lower = /^\s*RTP\/S?AVPF?(\/TCP|\/UDP)?\s*(?:;|$)/i.exec(value);
  return {
    interleaved: pairOf(value, 'interleaved', 0, 255),
    clientPorts: pairOf(value, 'client_port', 1, 65_535),
    serverPorts: pairOf(value, 'server_port', 1, 65_535),
    lower: lower ? (lower[1]?.toUpperCase() === '/TCP' ? 'tcp' : 'udp') : null,
    ssrc: ssrc?.[1] ? Number.parseInt(ssrc[1], 16) : null,
  };
}

/** RFC 2326 §12.37: "The default timeout is 60 seconds." */
export const DEFAULT_SESSION_TIMEOUT_S = 60;

/** Reads a Session header: `id[;timeout=seconds]`. A timeout of 0 or none means the default. Source: RFC 2326 §12.37. */
export function parseSession(value: string): { readonly id: string; readonly timeoutS: number } {
  const [id = '', ...params] = value
    .slice(0, MAX_HEADER_CHARS)
    .split(';')
    .map((part) => part.trim());
  const timeout = params.map((part) => /^timeout\s*=\s*(\d{1,6})$/i.exec(part)?.[1]).find(Boolean);
  return { id, timeoutS: Number(timeout) > 0 ? Number(timeout) : DEFAULT_SESSION_TIMEOUT_S };
}
