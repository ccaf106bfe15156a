import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import { type Context, Hono } from 'hono';
import { secureHeaders } from 'hono/secure-headers';

/** Where the page may call: this server, and its live pictures. */
const ownSockets = (c: Context): string => `ws://${new URL(c.req.url).host}`;

/** What both pages have in common. Nothing is asked of the browser that loopback without encryption cannot keep. */
const PLAIN = { strictTransportSecurity: false, xXssProtection: false, xDownloadOptions: false } as const;

/** The page may load and call only what comes from here; blob: is for files it hands to the person. */
const pageHeaders = secureHeaders({
  ...PLAIN,
  xFrameOptions: 'DENY',
  contentSecurityPolicy: {
    defaultSrc: ["'self'"],
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    connectSrc: ["'self'", ownSockets],
    objectSrc: ["'none'"],
    baseUri: ["'none'"],
    frameAncestors: ["'none'"],
    formAction: ["'self'"],
  },
});

/** The one page that our own page frames: it draws a picture that somebody opened, and may do nothing else. */
const DRAWING: ReadonlySet<string> = new Set(['/draw-svg.html', '/draw-svg.js']);
const drawingHeaders = secureHeaders({
  ...PLAIN,
  crossOriginResourcePolicy: false, // its frame has an origin of its own, from which its script comes from elsewhere
  xFrameOptions: 'SAMEORIGIN',
  contentSecurityPolicy: {
    sandbox: ['allow-scripts'],
    defaultSrc: ["'none'"],
    scriptSrc: ["'self'"],
    imgSrc: ['blob:', 'data:'],
    baseUri: ["'none'"],
    frameAncestors: ["'self'"],
  },
});

/**
 * What hashes firmware images is the one script that may compile WebAssembly; it may load and call nothing at all. A worker
 * goes by the policy of its own script, not by that of the page.
 */
const IMAGE_WORKER = /^\/assets\/image-worker-[\w-]+\.js$/;
const imageWorkerHeaders = secureHeaders({
  ...PLAIN,
  contentSecurityPolicy: { defaultSrc: ["'none'"], scriptSrc: ["'self'", "'wasm-unsafe-eval'"] },
});

const headersFor = (path: string) =>
  DRAWING.has(path) ? drawingHeaders : IMAGE_WORKER.test(path) ? imageWorkerHeaders : pageHeaders;

const isDecodable = (path: string): boolean => {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false; // RFC 3986 §2.1: a “%” that is no escape
  }
};

const FOR_EVER = 'public, max-age=31536000, immutable';

/** Serves the built page: hashed assets for ever, everything that is no file as the one page. */
export function staticFiles(folder: string): Hono {
  const app = new Hono();
  app.use('*', (c, next) => headersFor(c.req.path)(c, next));
  app.use('*', async (c, next) => (isDecodable(c.req.path) ? next() : c.text('This is no address of a page.', 400)));
  app.get(
    '*',
    serveStatic({
      root: folder,
      onFound: (path, c) => c.header('Cache-Control', path.includes('/assets/') ? FOR_EVER : 'no-cache'),
    }),
  );
  app.get('*', async (c, next) => {
    if (/^\/(assets|api)\//.test(c.req.path)) return c.notFound();
    if (!existsSync(join(folder, 'index.html')))
      return c.text('The page was not built yet. Run npm start, which builds it.', 503);
    return next();
  });
  app.get(
    '*',
    serveStatic({ root: folder, path: 'index.html', onFound: (_, c) => c.header('Cache-Control', 'no-cache') }),
  );
  return app;
}
