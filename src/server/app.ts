import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { compress } from 'hono/compress';
import { HTTPException } from 'hono/http-exception';
import { stream } from 'hono/streaming';
import { ValidationError } from 'yup';
import { type ProbeEvent, probeRequestSchema } from '../contract/probe-api.ts';
import { problem } from '../contract/problem.ts';
import type { DemoSite, ServerInfo } from '../contract/server-info.ts';
import { readTarget } from '../core/net/target.ts';
import { reportOfBadTarget } from '../core/probe/probe-report.ts';
import type { World } from './drive.ts';
import { type GuardOptions, guardRequests } from './guard.ts';
import { logFault } from './last-guard.ts';
import { runProbe } from './probe/run-probe.ts';
import type { RunningWork } from './running-work.ts';

export interface AppOptions extends GuardOptions {
  readonly world: World;
  readonly network: ServerInfo['network'];
  readonly probes: RunningWork;
  /** The demo site, when this server shows it. */
  readonly demo: (() => DemoSite) | null;
}

/** A stream URL, an account and limits: more is no request of ours. */
const MAX_BODY_BYTES = 16 * 1024;
/** Probes that run at the same time: a whole site at once, but not a scan. */
const MAX_PROBES = 64;

/** The whole pipeline on one screen: guard, then the few things a page may ask of this machine. */
export function createApp({ world, network, demo, probes, ...guard }: AppOptions) {
  return new Hono()
    .use(compress())
    .use('/api/*', guardRequests(guard))
    .use(
      '/api/*',
      bodyLimit({
        maxSize: MAX_BODY_BYTES,
        onError: (c) => c.json(problem(413, 'Too large', 'A probe request is a few hundred bytes.'), 413),
      }),
    )
    .get('/api/health', (c) => c.json({ status: 'ok' }))
    .get('/api/info', (c) => c.json<ServerInfo>({ name: 'clear-tap', network }))
    .get('/api/demo', (c) =>
      demo
        ? c.json<DemoSite>(demo())
        : c.json(problem(404, 'No demo', 'This server was started without the demo.'), 404),
    )
    .post('/api/probe', async (c) => {
      const request = await probeRequestSchema.validate(parseJson(await c.req.text()), { strict: true });
      if (probes.size >= MAX_PROBES)
        return c.json(problem(429, 'Too many probes', `${MAX_PROBES} probes are running. Wait for one to end.`), 429);
      const target = readTarget(request.url, request.user, request.secret);
      c.header('Content-Type', 'application/x-ndjson');
      c.header('Cache-Control', 'no-store');
      return stream(c, async (out) => {
        const controller = new AbortController();
        out.onAbort(() => controller.abort(new Error('The page went away.')));
        const say = (event: ProbeEvent): void => void out.write(`${JSON.stringify(event)}\n`);
        if (!target.ok) return say({ kind: 'report', report: reportOfBadTarget(target.error) });
        const probe = { ...request, ...target.value };
        try {
          await probes.run(controller, (signal) => runProbe(probe, world, signal, say));
        } catch (error) {
          if (!controller.signal.aborted) logFault(error); // a cancelled probe has nobody to tell
        }
      });
    })
    .onError((error, c) => {
      if (error instanceof ValidationError) return c.json(problem(400, 'Bad request', error.message), 400);
      if (error instanceof HTTPException) return c.json(problem(error.status, 'Refused', error.message), error.status);
      if (hasHungUp(error)) return c.body(null, 400); // in the middle of its request: nobody reads this
      logFault(error);
      return c.json(problem(500, 'Our mistake', 'The server met a fault of its own. Its console says which.'), 500);
    });
}

/** The peer went away while its request was read; asked by shape, since the error is Node's own. */
const hasHungUp = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'code' in error && error.code === 'ECONNRESET';

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new HTTPException(400, { message: 'Expected JSON.' });
  }
}
