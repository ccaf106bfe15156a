import type { MiddlewareHandler } from 'hono';
import { APP_HEADER, APP_HEADER_VALUE, TOKEN_HEADER } from '../contract/app-header.ts';
import { problem } from '../contract/problem.ts';

export interface GuardOptions {
  /** Host names, with port, under which this server is the one meant. */
  readonly hosts: () => ReadonlySet<string>;
  /** Needed on every request when the server listens beyond loopback. */
  readonly token: string | null;
}

/** Whether Host and Origin name this server: no other site's page, and no name that was pointed here, gets through. */
export function isOwnOrigin(
  headers: { readonly host: string | undefined; readonly origin: string | undefined },
  hosts: ReadonlySet<string>,
): boolean {
  if (headers.host === undefined || !hosts.has(headers.host.toLowerCase())) return false;
  if (headers.origin === undefined) return true;
  return headers.origin === `http://${headers.host}`.toLowerCase();
}

/** The way to a page that was kept under the other name: `http://localhost:PORT/?stay`. */
const STAY = 'stay';

/**
 * A browser keeps sites by the name in its address bar: under `localhost` and under `127.0.0.1` it keeps two different
 * stores. Pages are therefore sent to one of them.
 */
export function oneName(from: () => string, to: () => string): MiddlewareHandler {
  return async (c, next) => {
    const url = new URL(c.req.url);
    const isPage = !url.pathname.includes('.') && !url.searchParams.has(STAY);
    if (!isPage || c.req.header('host')?.toLowerCase() !== from()) return next();
    return c.redirect(`http://${to()}${url.pathname}${url.search}`, 307);
  };
}

/** The page itself is given under the names of this server alone: no name that was pointed here shows it as its own. */
export function guardPages({ hosts }: Pick<GuardOptions, 'hosts'>): MiddlewareHandler {
  return async (c, next) => {
    const host = c.req.header('host')?.toLowerCase();
    if (host !== undefined && hosts().has(host)) return next();
    return c.text('Clear Tap answers under the address that it printed.', 421);
  };
}

/** Refuses what did not come from our own page or a tool that says it is ours. Health is open: it tells nothing. */
export function guardRequests({ hosts, token }: GuardOptions): MiddlewareHandler {
  return async (c, next) => {
    const headers = { host: c.req.header('host'), origin: c.req.header('origin') };
    if (!isOwnOrigin(headers, hosts()))
      return c.json(problem(403, 'Refused', 'This request did not come from Clear Tap’s own page.'), 403);
    if (c.req.path !== '/api/health') {
      if (c.req.header(APP_HEADER) !== APP_HEADER_VALUE)
        return c.json(problem(403, 'Refused', `The header ${APP_HEADER} is missing.`), 403);
      if (token !== null && c.req.header(TOKEN_HEADER) !== token)
        return c.json(problem(401, 'Refused', 'The token is missing or wrong.'), 401);
    }
    return next();
  };
}
