import { oneLine } from '../base/control-signs.ts';

export interface RtspHeader {
  readonly name: string;
  readonly value: string;
}
interface Message {
  readonly headers: readonly RtspHeader[];
  readonly body: Uint8Array;
  /** Lines of the header that are no header (no colon), kept as they came. */
  readonly oddLines: readonly string[];
  /** Start line and headers as they came, for the wire tape. */
  readonly head: string;
}
/** RFC 2326 §7. */
export interface RtspResponse extends Message {
  readonly status: number;
  readonly reason: string;
}
/** RFC 2326 §6. */
export interface RtspRequest extends Message {
  readonly method: string;
  readonly uri: string;
}

/** First value of a header; names compare in any letter case (RFC 2326 §4.2 by RFC 2068 §4.2). */
export function headerOf(message: Pick<Message, 'headers'>, name: string): string | undefined {
  const wanted = name.toLowerCase();
  return message.headers.find((header) => header.name.toLowerCase() === wanted)?.value;
}
export function headersOf(message: Pick<Message, 'headers'>, name: string): readonly string[] {
  const wanted = name.toLowerCase();
  return message.headers.filter((header) => header.name.toLowerCase() === wanted).map((header) => header.value);
}

/** A URI as it can stand in a request line: blanks and control signs, which would end it, are encoded (RFC 3986 §2.1). */
export const wireUri = (uri: string): string => uri.replace(/[\s\p{Cc}]/gu, encodeURIComponent);

/** Whatever a value holds, it stays within its line. */
const lineOf = ({ name, value }: RtspHeader): string => `${name}: ${oneLine(value)}\r\n`;

/** Text of a request with its headers, ended by the empty line. */
export const writeRequest = (method: string, uri: string, headers: readonly RtspHeader[]): string =>
  `${method} ${wireUri(uri)} RTSP/1.0\r\n${headers.map(lineOf).join('')}\r\n`;

export const writeResponse = (status: number, reason: string, headers: readonly RtspHeader[], body = ''): string =>
  `RTSP/1.0 ${status} ${reason}\r\n${headers.map(lineOf).join('')}\r\n${body}`;
