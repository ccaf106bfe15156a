import { Hono, type MiddlewareHandler } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { compress } from 'hono/compress';
import { HTTPException } from 'hono/http-exception';
import { stream } from 'hono/streaming';
import { ValidationError } from 'yup';
import type { FaultGallery } from '../contract/fault-api.ts';
import { problem } from '../contract/problem.ts';
import { type RouterAnswer, type RouterRequest, routerRequestSchema } from '../contract/router-api.ts';
import type { DemoSite, ServerInfo } from '../contract/server-info.ts';
import { type StandinAnswer, type StandinRequest, standinRequestSchema } from '../contract/standin-api.ts';
import { readJson } from '../core/base/read-json.ts';
import type { World } from './drive.ts';
import { type GuardOptions, guardRequests } from './guard.ts';
import { logFault } from './last-guard.ts';
import type { RunningWork } from './works/running-work.ts';
import { MOST_UNREAD_MS } from './works/unread.ts';
import type { Out, Work } from './works/work.ts';
import { LINE_WORKS } from './works/works.ts';

export interface Demo {
  readonly site: () => DemoSite;
  readonly faults: () => FaultGallery;
  /** Asks the simulated router; what it is told takes the place of what it had. */
  readonly router: (request: RouterRequest) => RouterAnswer;
  /** Does something to a simulated camera; `null` where none is at that address. */
  readonly standin: (request: StandinRequest) => Promise<StandinAnswer | null>;
}

export interface AppOptions extends GuardOptions {
  readonly world: World;
  readonly network: ServerInfo['network'];
  readonly running: RunningWork;
  /** What a page may ask for, by name. */
  readonly works?: ReadonlyMap<string, Work>;
  /** How often work that is silent says that it goes on; well below the silence after which a connection is nobody's. */
  readonly heartbeatMs?: number;
  /** The demo site and its simulated cameras, when this server shows them. */
  readonly demo: Demo | null;
}

const HEARTBEAT_MS = 30_000;

/** A stream URL, an account and limits: more is no request of ours. */
const MAX_BODY_BYTES = 16 * 1024;

/** The whole pipeline on one screen: guard, then the few things a page may ask of this machine. */
export function createApp({
  world,
  network,
  demo,
  running,
  works = LINE_WORKS,
  heartbeatMs = HEARTBEAT_MS,
  ...guard
}: AppOptions) {
  return new Hono()
    .use(compress())
    .use('/api/*', closeTight)
    .use('/api/*', guardRequests(guard))
    .use(
      '/api/*',
      bodyLimit({
        maxSize: MAX_BODY_BYTES,
        onError: (c) => c.json(problem(413, 'Too large', 'A request is a few hundred bytes.'), 413),
      }),
    )
    .get('/api/health', (c) => c.json({ status: 'ok' }))
    .get('/api/info', (c) => c.json<ServerInfo>({ name: 'clear-tap', network, logins: world.logins.lines() }))
    .get('/api/demo', (c) =>
      demo
        ? c.json<DemoSite>(demo.site())
        : c.json(problem(404, 'No demo', 'This server was started without the demo.'), 404),
    )
    .get('/api/faults', (c) =>
      demo
        ? c.json<FaultGallery>(demo.faults())
        : c.json(problem(404, 'No demo', 'This server was started without the demo.'), 404),
    )
    .post('/api/standin', async (c) => {
      if (!demo) return c.json(problem(404, 'No demo', 'This server was started without the demo.'), 404);
      const asked = parseJson(await c.req.text());
      const request = standinRequestSchema.validateSync(asked, { strict: true }) as StandinRequest; // the schema says the same
      const answer = await demo.standin(request);
      return answer
        ? c.json<StandinAnswer>(answer)
        : c.json(problem(404, 'No such camera', `No simulated camera is at ${request.host}.`), 404);
    })
    .post('/api/router', async (c) => {
      if (!demo) return c.json(problem(404, 'No demo', 'This server was started without the demo.'), 404);
      const request = routerRequestSchema.validateSync(parseJson(await c.req.text()), { strict: true });
      return c.json<RouterAnswer>(demo.router(request));
    })
    .post('/api/:work', async (c, next) => {
      const work = works.get(c.req.param('work'));
      if (!work) return next();
      const start = work.accept(parseJson(await c.req.text()));
      if (running.count(work) >= work.most)
        return c.json(
          problem(429, 'Too much at once', `${work.most} ${work.many} are running. Wait for one to end.`),
          429,
        );
      c.header('Content-Type', 'application/x-ndjson');
      c.header('Cache-Control', 'no-store');
      return stream(c, async (lines) => {
        const controller = new AbortController();
        lines.onAbort(() => controller.abort(new Error('The page went away.')));
        const out: Out = {
          sendEvent: (event) => {
            // a page that takes nothing keeps a session at a camera for nobody
            const late = setTimeout(() => controller.abort(new Error('The page reads nothing.')), MOST_UNREAD_MS);
            void lines.write(`${JSON.stringify(event)}\n`).finally(() => clearTimeout(late));
          },
          sendFrame: () => {
            throw new TypeError('Lines carry no pictures: such work goes over a socket.');
          },
        };
        // a long sample says nothing for minutes: an empty line now and then says that somebody is there
        const beat = setInterval(() => void lines.write('\n'), heartbeatMs);
        try {
          await running.run(work, controller, (signal) => start(world, signal, out, () => {}));
        } catch (error) {
          if (!controller.signal.aborted) logFault(error); // what was cancelled has nobody to tell
        } finally {
          clearInterval(beat);
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

/** What is told to a page is told to no other, and kept by nobody on the way. */
const closeTight: MiddlewareHandler = async (c, next) => {
  await next();
  c.header('X-Content-Type-Options', 'nosniff');
  c.header('Cross-Origin-Resource-Policy', 'same-origin');
  c.header('Cache-Control', 'no-store');
};

/** The peer went away while its request was read; asked by shape, since the error is Node's own. */
const hasHungUp = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'code' in error && error.code === 'ECONNRESET';

function parseJson(text: string): unknown {
  const read = readJson(text);
  if (read.ok) return read.value;
  throw new HTTPException(400, { message: read.error.message });
}
