/** What a SETUP answer says about the path of one track. */
export interface TransportAnswer {
  readonly interleaved: readonly [number, number] | null;
  readonly ssrc: number | null;
}

/** Reads a Transport header of a SETUP response. Source: RFC 2326 §12.39. */
export function parseTransport(value: string): TransportAnswer {
  const pair = /(?:^|;)\s*interleaved\s*=\s*(\d{1,3})(?:-(\d{1,3}))?/i.exec(value);
  const ssrc = /(?:^|;)\s*ssrc\s*=\s*([0-9a-f]{1,8})\s*(?:;|$)/i.exec(value);
  const first = Number(pair?.[1]);
  return {
    interleaved: pair ? [first, pair[2] === undefined ? first + 1 : Number(pair[2])] : null,
    ssrc: ssrc?.[1] ? Number.parseInt(ssrc[1], 16) : null,
  };
}

/** RFC 2326 §12.37: "The default timeout is 60 seconds." */
const DEFAULT_SESSION_TIMEOUT_S = 60;

/** Reads a Session header: `id[;timeout=seconds]`. A timeout of 0 or none means the default. Source: RFC 2326 §12.37. */
export function parseSession(value: string): { readonly id: string; readonly timeoutS: number } {
  const [id = '', ...params] = value.split(';').map((part) => part.trim());
  const timeout = params.map((part) => /^timeout\s*=\s*(\d{1,6})$/i.exec(part)?.[1]).find(Boolean);
  return { id, timeoutS: Number(timeout) > 0 ? Number(timeout) : DEFAULT_SESSION_TIMEOUT_S };
}
