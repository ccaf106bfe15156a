import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { extname, join, normalize } from 'node:path';
import { Hono } from 'hono';

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html; charset=utf-8',
  '.js': 'text/javascript; charset=utf-8',
  '.css': 'text/css; charset=utf-8',
  '.svg': 'image/svg+xml',
  '.woff2': 'font/woff2',
  '.json': 'application/json',
};

/** The page may load and call only what comes from here; blob: is for files it hands to the person. */
const contentPolicy = (host: string): string =>
  `default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; connect-src 'self' ws://${host}; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'`;

/** The one page that our own page frames: it draws a picture that somebody opened, and may do nothing else. */
const DRAWING_PAGE = '/draw-svg.html';
const DRAWING_POLICY =
  "sandbox allow-scripts; default-src 'none'; script-src 'self'; img-src blob: data:; base-uri 'none'; frame-ancestors 'self'";

/** The path asked for, decoded and without steps upwards; `null` when it cannot be decoded. */
function pathOf(url: string): string | null {
  try {
    return normalize(decodeURIComponent(new URL(url).pathname));
  } catch {
    return null; // RFC 3986 §2.1: a “%” that is no escape
  }
}

/** Serves the built page: hashed assets for ever, everything that is no file as the one page. */
export function staticFiles(folder: string): Hono {
  return new Hono().get('*', async (c) => {
    const path = pathOf(c.req.url);
    if (path === null) return c.text('This is no address of a page.', 400);
    const file = join(folder, path);
    const isFile = file.startsWith(folder) && extname(path) !== '' && existsSync(file);
    if (!isFile && (path.startsWith('/assets/') || path.startsWith('/api/'))) return c.notFound();
    const page = join(folder, 'index.html');
    if (!existsSync(page)) return c.text('The page was not built yet. Run npm start, which builds it.', 503);
    const body = await readFile(isFile ? file : page);
    return c.body(new Uint8Array(body), 200, {
      'Content-Type': TYPES[isFile ? extname(path) : '.html'] ?? 'application/octet-stream',
      'Cache-Control': isFile && path.startsWith('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
      'Content-Security-Policy': path === DRAWING_PAGE ? DRAWING_POLICY : contentPolicy(new URL(c.req.url).host),
      'X-Content-Type-Options': 'nosniff',
      'Referrer-Policy': 'no-referrer',
    });
  });
}
