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
const CONTENT_POLICY =
  "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; connect-src 'self' ws:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'";

/** Serves the built page: hashed assets for ever, everything that is no file as the one page. */
export function staticFiles(folder: string): Hono {
  return new Hono().get('*', async (c) => {
    const path = normalize(decodeURIComponent(new URL(c.req.url).pathname));
    const file = join(folder, path);
    const isFile = file.startsWith(folder) && extname(path) !== '' && existsSync(file);
    if (!isFile && (path.startsWith('/assets/') || path.startsWith('/api/'))) return c.notFound();
    const body = await readFile(isFile ? file : join(folder, 'index.html'));
    return c.body(new Uint8Array(body), 200, {
      'Content-Type': TYPES[isFile ? extname(path) : '.html'] ?? 'application/octet-stream',
      'Cache-Control': isFile && path.startsWith('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
      'Content-Security-Policy': CONTENT_POLICY,
      'X-Content-Type-Options': 'nosniff',
      'Referrer-Policy': 'no-referrer',
    });
  });
}
