import ipaddr from 'ipaddr.js';
import { hasControl } from '../base/control-signs.ts';
import { type Fault, fault } from '../base/fault.ts';
import { err, ok, type Result } from '../base/result.ts';
import { blanksEncoded } from './percent.ts';
import { PORT_RANGE } from './port-range.ts';
import { DEFAULT_PORTS, type StreamUrl, type UrlScheme } from './stream-url.ts';

export type UrlWarning = 'trimmed-whitespace' | 'userinfo-needs-encoding' | 'whitespace-inside';
export type UrlFaultCode =
  | 'url.whitespace-inside'
  | 'url.control-sign'
  | 'url.no-scheme'
  | 'url.bad-scheme'
  | 'url.bad-port'
  | 'url.bad-authority';

const CONTROL_SIGN = fault(
  'url.control-sign',
  'A line break or another control character stands in this URL: copy it again',
);
const isScheme = (text: string): text is UrlScheme => Object.hasOwn(DEFAULT_PORTS, text);
/** RFC 3986 §3.2.1: userinfo = *( unreserved / pct-encoded / sub-delims / ":" ). */
const LEGAL_USERINFO = /^(?:[A-Za-z0-9\-._~!$&'()*+,;=:]|%[0-9A-Fa-f]{2})*$/;
const REG_NAME = /^(?:[A-Za-z0-9\-._~!$&'()*+,;=]|%[0-9A-Fa-f]{2})+$/;

/**
 * Takes a pasted stream URL apart.
 * Leading and trailing blanks are dropped with a warning, those in path and query encoded with one; a password with raw illegal characters is read up to the last
 * `@` with a warning; the fragment is dropped.
 * Faults: see {@link UrlFaultCode}; messages never contain the URL, since it may hold a password.
 * Source: RFC 3986 §3; RFC 2326 §3.2. `rtsp://op:a:b@h/x` → user `op`, password `a:b`.
 */
export function parseStreamUrl(
  text: string,
): Result<{ readonly url: StreamUrl; readonly warnings: readonly UrlWarning[] }, Fault<UrlFaultCode>> {
  const warnings: UrlWarning[] = [];
  const trimmed = text.trim();
  if (trimmed !== text) warnings.push('trimmed-whitespace');
  if (hasControl(trimmed)) return err(CONTROL_SIGN);

  const schemeMatch = /^([A-Za-z][A-Za-z0-9+.-]*):\/\//.exec(trimmed);
  if (!schemeMatch?.[1])
    return err(fault('url.no-scheme', 'Expected a URL such as rtsp://host:port/path, got text without “scheme://”'));
  const scheme = schemeMatch[1].toLowerCase();
  if (!isScheme(scheme))
    return err(fault('url.bad-scheme', `Expected rtsp, rtsps, http or https, got “${scheme}”`, { got: scheme }));

  const rest = trimmed.slice(schemeMatch[0].length);
  const authorityEnd = rest.search(/[/?#]|$/);
  const authority = rest.slice(0, authorityEnd);
  const typed = rest.slice(authorityEnd).split('#', 1)[0] ?? '';
  const tail = blanksEncoded(typed);
  if (tail !== typed) warnings.push('whitespace-inside');
  // In a path a blank can be encoded for the person; in a name or a secret nobody knows what was meant.
  if (/\s/.test(authority + tail))
    return err(fault('url.whitespace-inside', 'Expected no spaces in host and account of a URL; this one has'));
  const queryAt = tail.indexOf('?');

  const at = authority.lastIndexOf('@');
  const userinfo = at < 0 ? null : authority.slice(0, at);
  const hostPort = parseHostPort(authority.slice(at + 1), DEFAULT_PORTS[scheme]);
  if (!hostPort.ok) return hostPort;

  let user: string | null = null;
  let password: string | null = null;
  if (userinfo !== null) {
    const colon = userinfo.indexOf(':');
    const decoded = [
      userinfo.slice(0, colon < 0 ? undefined : colon),
      colon < 0 ? null : userinfo.slice(colon + 1),
    ].map((part) => (part === null ? null : decodeOrKeep(part)));
    user = decoded[0]?.text ?? null;
    password = decoded[1]?.text ?? null;
    // A line end would end the request line or the header that it comes to stand in.
    if (hasControl(`${user}${password ?? ''}`)) return err(CONTROL_SIGN);
    if (!LEGAL_USERINFO.test(userinfo) || decoded.some((part) => part?.kept)) warnings.push('userinfo-needs-encoding');
  }
  return ok({
    url: {
      scheme,
      user,
      password,
      ...hostPort.value,
      path: queryAt < 0 ? tail : tail.slice(0, queryAt),
      query: queryAt < 0 ? null : tail.slice(queryAt + 1),
    },
    warnings: warnings.sort(),
  });
}

function parseHostPort(
  text: string,
  defaultPort: number,
): Result<{ host: string; port: number }, Fault<'url.bad-authority' | 'url.bad-port'>> {
  const bad = () =>
    err(
      fault(
        'url.bad-authority',
        'Expected host or host:port after the account, got something else: a “/”, “?” or “#” in a password must be percent-encoded, an IPv6 address needs [ ]',
      ),
    );
  const match = /^(\[[^\]]*\]|[^:[\]]*)(?::(.*))?$/.exec(text);
  if (!match?.[1]) return bad();
  const bracketed = match[1].startsWith('[');
  const host = (bracketed ? match[1].slice(1, -1) : match[1]).toLowerCase();
  if (bracketed ? !ipaddr.IPv6.isValid(host) : !REG_NAME.test(host)) return bad();
  const portText = match[2] ?? '';
  if (!/^\d*$/.test(portText)) return bad();
  const port = portText === '' ? defaultPort : Number(portText);
  if (!(port >= PORT_RANGE.min && port <= PORT_RANGE.max))
    return err(fault('url.bad-port', `Expected a port from 1 to 65535, got ${portText}`, { got: portText }));
  return ok({ host, port });
}

function decodeOrKeep(text: string): { text: string; kept: boolean } {
  try {
    return { text: decodeURIComponent(text), kept: false };
  } catch {
    return { text, kept: true }; // a lone % or bytes that are not UTF-8: what was typed is what is meant
  }
}
