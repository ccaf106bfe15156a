import { bytesOf, concatBytes } from '../base/bytes.ts';
import type { Fault } from '../base/fault.ts';
import type { Header } from './headers.ts';

// Source: RFC 9112 (HTTP/1.1), as far as a client needs it that asks one thing after the other over a connection.

/** A whole answer. */
export interface HttpAnswer {
  readonly status: number;
  readonly headers: readonly Header[];
  readonly body: Uint8Array;
  /** Whether the peer keeps the connection for the next request (RFC 9112 §9.3). */
  readonly staysOpen: boolean;
}

export type HttpFaultCode =
  | 'http.not-http'
  | 'http.head-too-large'
  | 'http.body-too-large'
  | 'http.bad-length'
  | 'http.bad-chunk'
  | 'http.cut';

export type HttpEvent =
  | { readonly kind: 'answer'; readonly answer: HttpAnswer }
  | { readonly kind: 'malformed'; readonly fault: Fault<HttpFaultCode> };

export interface HttpRequest {
  readonly method: 'GET' | 'POST';
  readonly host: string;
  readonly port: number;
  /** Over TLS. */
  readonly isTls: boolean;
  /** Path and query. */
  readonly path: string;
  readonly headers: readonly Header[];
  readonly body: string;
  /** SHA-256 of the certificate that the peer is known by: where it shows another one, nothing is sent. `null` takes any. */
  readonly knownFingerprint: string | null;
}

/** A request as it goes over the wire; host and length are added. Source: RFC 9112 §3, RFC 9110 §7.2. */
export function writeHttpRequest({ method, host, port, isTls, path, headers, body }: HttpRequest): Uint8Array {
  const named = host.includes(':') ? `[${host}]` : host;
  const bytes = bytesOf(body);
  const lines = [
    `${method} ${path} HTTP/1.1`,
    `Host: ${port === (isTls ? 443 : 80) ? named : `${named}:${port}`}`,
    ...headers.map(({ name, value }) => `${name}: ${value}`),
    ...(method === 'POST' ? [`Content-Length: ${bytes.length}`] : []),
    '',
    '',
  ];
  return concatBytes([bytesOf(lines.join('\r\n')), bytes]);
}
