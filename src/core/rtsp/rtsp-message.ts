import { oneLine } from '../base/control-signs.ts';
import type { Header } from '../http/headers.ts';

export interface RtspMessage {
  readonly headers: readonly Header[];
  readonly body: Uint8Array;
  /** Lines of the header that are no header (no colon), kept as they came. */
  readonly oddLines: readonly string[];
  /** Start line and headers as they came, for the wire tape. */
  readonly head: string;
}
/** RFC 2326 §7. */
export interface RtspResponse extends RtspMessage {
  readonly status: number;
  readonly reason: string;
}
/** RFC 2326 §6. */
export interface RtspRequest extends RtspMessage {
  readonly method: string;
  readonly uri: string;
}

/** A URI as it can stand in a request line: blanks and control signs, which would end it, are encoded (RFC 3986 §2.1). */
export const wireUri = (uri: string): string => uri.replace(/[\s\p{Cc}]/gu, encodeURIComponent);

/** Whatever a value holds, it stays within its line. */
const lineOf = ({ name, value }: Header): string => `${name}: ${oneLine(value)}\r\n`;

/** Text of a request with its headers, ended by the empty line. */
export const writeRequest = (method: string, uri: string, headers: readonly Header[]): string =>
  `${method} ${wireUri(uri)} RTSP/1.0\r\n${headers.map(lineOf).join('')}\r\n`;

export const writeResponse = (status: number, reason: string, headers: readonly Header[], body = ''): string =>
  `RTSP/1.0 ${status} ${reason}\r\n${headers.map(lineOf).join('')}\r\n${body}`;
