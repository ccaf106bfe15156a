import { percentEncode } from './percent.ts';

export type UrlScheme = 'rtsp' | 'rtsps' | 'http' | 'https';

/** A stream address in its parts. Path and query are kept byte for byte: cameras distinguish letter case. */
export interface StreamUrl {
  readonly scheme: UrlScheme;
  readonly user: string | null;
  readonly password: string | null;
  readonly host: string;
  readonly port: number;
  readonly path: string;
  readonly query: string | null;
}

/** RFC 2326 §3.2 (rtsp 554), RFC 7826 §4.2 (rtsps 322), RFC 9110 §4.2 (http 80, https 443). */
export const DEFAULT_PORTS: Readonly<Record<UrlScheme, number>> = { rtsp: 554, rtsps: 322, http: 80, https: 443 };

/** Percent-encodes a user name or password for a URL: UTF-8, everything but RFC 3986 unreserved, upper-case hex. */
export function encodeUserinfo(text: string): string {
  return percentEncode(text).replace(
    /[!'()*]/g,
    (char) => `%${char.charCodeAt(0).toString(16).toUpperCase().padStart(2, '0')}`,
  );
}

/** Host as it stands in a URL: an IPv6 literal gets its brackets. */
export const urlHost = (host: string): string => (host.includes(':') ? `[${host}]` : host);

/**
 * Writes a URL exactly as it must be typed elsewhere; the default port of the scheme is left out, an empty password kept.
 * `port: null` means the default.
 */
export function buildStreamUrl(url: Omit<StreamUrl, 'port'> & { readonly port: number | null }): string {
  const account =
    url.user === null
      ? ''
      : `${encodeUserinfo(url.user)}${url.password === null ? '' : `:${encodeUserinfo(url.password)}`}@`;
  const port = url.port === null || url.port === DEFAULT_PORTS[url.scheme] ? '' : `:${url.port}`;
  return `${url.scheme}://${account}${urlHost(url.host)}${port}${pathAndQuery(url)}`;
}

/** Path and query of a URL, byte for byte: what a site keeps of it beside host, port and account. */
export const pathAndQuery = ({ path, query }: Pick<StreamUrl, 'path' | 'query'>): string =>
  query === null ? path : `${path}?${query}`;

/** A path with its query, put into a URL in the place of the one it has. */
export function withPath(url: StreamUrl, text: string): StreamUrl {
  const queryAt = text.indexOf('?');
  return {
    ...url,
    path: queryAt < 0 ? text : text.slice(0, queryAt),
    query: queryAt < 0 ? null : text.slice(queryAt + 1),
  };
}

/** The URL that may be dialled, logged and shown: no account at all. RTSP request lines carry this form. */
export const withoutAccount = (url: StreamUrl): string => buildStreamUrl({ ...url, user: null, password: null });

/**
 * Replaces the password in a URL by `***` and changes nothing else. Works on URLs that do not parse: a raw `/` in a
 * password ends the authority early, so there everything up to the last `@` is taken for the password.
 */
export function redactUrl(text: string): string {
  const match = /^(\s*[A-Za-z][A-Za-z0-9+.-]*:\/\/)(.*)$/s.exec(text);
  if (!match) return text;
  const [, head = '', rest = ''] = match;
  const authorityEnd = rest.search(/[/?#]|$/);
  const authority = rest.slice(0, authorityEnd);
  const plainHost = /^(\[[^\]]*\]|[^:[\]]*)(:\d*)?$/.test(authority);
  const at = authority.includes('@') ? authority.lastIndexOf('@') : plainHost ? -1 : rest.lastIndexOf('@');
  const colon = rest.indexOf(':');
  return at < 0 || colon < 0 || colon > at ? text : `${head}${rest.slice(0, colon)}:***${rest.slice(at)}`;
}
