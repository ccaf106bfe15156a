import { base64Of, textOf } from '../base/bytes.ts';
import { oneLine } from '../base/control-signs.ts';
import { headerOf, readHeaderLines } from '../http/headers.ts';
import type { StreamUrl } from '../net/stream-url.ts';

/** Whether RTSP goes inside HTTP there: two requests, one to hear and one to speak. No RFC has it; devices and clients agree on it. */
export const isTunnel = ({ scheme }: Pick<StreamUrl, 'scheme'>): boolean => scheme === 'http' || scheme === 'https';
export const isEncrypted = ({ scheme }: Pick<StreamUrl, 'scheme'>): boolean => scheme === 'rtsps' || scheme === 'https';

/** The URL as RTSP says it, also inside a tunnel; its port stays as it is. */
export const spokenUrl = (url: StreamUrl): StreamUrl =>
  isTunnel(url) ? { ...url, scheme: isEncrypted(url) ? 'rtsps' : 'rtsp' } : url;

const TUNNELLED = 'application/x-rtsp-tunnelled';

interface Ask {
  readonly path: string;
  readonly host: string;
  /** One text in both requests: so the device knows that they belong together. */
  readonly cookie: string;
  readonly userAgent: string;
}

/** What is written to hear what the device says. */
export const tunnelGet = ({ path, host, cookie, userAgent }: Ask): string =>
  `GET ${path} HTTP/1.0\r\nHost: ${host}\r\nUser-Agent: ${userAgent}\r\nx-sessioncookie: ${cookie}\r\nAccept: ${TUNNELLED}\r\nPragma: no-cache\r\nCache-Control: no-cache\r\n\r\n`;

/** What is written before what is said; the length is as good as none, the body goes on as long as it lasts. */
export const tunnelPost = ({ path, host, cookie, userAgent }: Ask): string =>
  `POST ${path} HTTP/1.0\r\nHost: ${host}\r\nUser-Agent: ${userAgent}\r\nx-sessioncookie: ${cookie}\r\nContent-Type: ${TUNNELLED}\r\nPragma: no-cache\r\nCache-Control: no-cache\r\nContent-Length: 32767\r\nExpires: Sun, 9 Jan 1972 00:00:00 GMT\r\n\r\n`;

/** Each piece by itself, so that the device need not wait for the next. */
export const tunnelled = (bytes: Uint8Array): string => base64Of(bytes);

const MOST_HEAD_BYTES = 8 * 1024;

/** How the device answered the wish to hear it. */
export type TunnelAnswer =
  | { readonly kind: 'more' }
  | { readonly kind: 'open'; readonly rest: Uint8Array }
  | { readonly kind: 'refused'; readonly note: string };

/** Reads the head of the answer to GET, from all that has come. What follows it is RTSP. */
export function readTunnelAnswer(bytes: Uint8Array): TunnelAnswer {
  const text = textOf(bytes.subarray(0, MOST_HEAD_BYTES));
  const line = text.split(/\r?\n/, 1)[0] ?? '';
  const status = /^HTTP\/1\.\d (\d{3})/.exec(line)?.[1];
  if (line.length >= 8 && !line.startsWith('HTTP/1.'))
    return { kind: 'refused', note: `Something other than HTTP responded: “${oneLine(line.slice(0, 48))}”.` };
  if (status !== undefined && status !== '200')
    return { kind: 'refused', note: `Asked for RTSP over HTTP, it answered ${oneLine(line.slice(9, 60)).trim()}.` };
  const end = text.indexOf('\r\n\r\n');
  if (end < 0)
    return bytes.length >= MOST_HEAD_BYTES
      ? { kind: 'refused', note: 'The header of its answer does not end within 8 KiB.' }
      : { kind: 'more' };
  const headers = readHeaderLines(text.slice(0, end).split('\r\n'));
  const type = headerOf({ headers }, 'content-type')?.slice(0, 80) ?? '';
  if (!type.toLowerCase().startsWith(TUNNELLED))
    return {
      kind: 'refused',
      note: `Asked for RTSP over HTTP, it sent ${type === '' ? 'something without a content type' : oneLine(type)}.`,
    };
  return { kind: 'open', rest: bytes.slice(end + 4) };
}
