import { createServer } from 'node:http';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { getRequestListener } from '@hono/node-server';
import { Hono } from 'hono';
import type { Fleet } from '../standins/fleet.ts';
import { createSimulatedDialer } from './adapters/simulated-network.ts';
import { systemClock, systemEntropy } from './adapters/system.ts';
import { createTcpDialer } from './adapters/tcp-dialer.ts';
import { createApp } from './app.ts';
import { serveLiveViews } from './live/live-socket.ts';
import { staticFiles } from './static-files.ts';

const DEFAULT_PORT = 4180;
/** A page opens a few connections; more are somebody else. */
const MAX_CONNECTIONS = 256;
/** A request that has not said what it wants by then never will. */
const HEADERS_TIMEOUT_MS = 10_000;
/** Whatever still hangs when the server is told to stop is cut off after this. */
const STOP_WITHIN_MS = 800;
/** How many ports above the wanted one are tried before giving up. */
const PORTS_TRIED = 20;

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: String(DEFAULT_PORT) },
    host: { type: 'string', default: '127.0.0.1' },
    demo: { type: 'boolean', default: false },
    'allow-public': { type: 'boolean', default: false },
    /** The port must be the wanted one: for tests and proxies. */
    'exact-port': { type: 'boolean', default: false },
  },
});

const isLoopback = values.host === '127.0.0.1' || values.host === 'localhost';
const token = isLoopback ? null : systemEntropy.hex(16);
const wantedPort = Number(values.port);
let boundPort = wantedPort;
const hosts = (): ReadonlySet<string> =>
  new Set(['127.0.0.1', 'localhost', ...(isLoopback ? [] : [values.host])].map((name) => `${name}:${boundPort}`));

async function main(): Promise<void> {
  if (!(Number.isInteger(wantedPort) && wantedPort >= 0 && wantedPort <= 65_535))
    throw new RangeError(`--port: expected 0 to 65535, got ${values.port}`);
  // Only the demo loads the simulated cameras.
  const standins = values.demo
    ? await Promise.all([import('../standins/fleet.ts'), import('../standins/alder-mill.ts')])
    : null;
  const fleet: Fleet | null = standins ? await standins[0].startFleet(standins[0].ALDER_MILL_FLEET) : null;
  const dialer = fleet ? createSimulatedDialer(fleet) : createTcpDialer({ allowPublic: values['allow-public'] });
  const world = { dialer, clock: systemClock, entropy: systemEntropy };
  const demo = standins
    ? () => ({
        site: standins[1].alderMill(new Date(systemClock.unixMs()).toISOString()),
        secrets: standins[1].alderMillSecrets(),
      })
    : null;

  const folder = join(dirname(fileURLToPath(import.meta.url)), '..', 'web');
  const app = new Hono()
    .route('/', createApp({ world, network: fleet ? 'simulated' : 'real', demo, hosts, token }))
    .route('/', staticFiles(folder));
  const server = createServer({ headersTimeout: HEADERS_TIMEOUT_MS }, getRequestListener(app.fetch));
  server.maxConnections = MAX_CONNECTIONS;
  const live = serveLiveViews(server, world, { hosts, token });
  boundPort = await listen(server, wantedPort);
  if (boundPort !== wantedPort && wantedPort !== 0) console.log(`Port ${wantedPort} is taken.`);
  console.log(`Clear Tap: http://${values.host}:${boundPort}/${token ? `?token=${token}` : ''}`);

  let isStopping = false;
  const stop = (): void => {
    if (isStopping) return;
    isStopping = true;
    live.close();
    server.close();
    server.closeAllConnections();
    setTimeout(() => process.exit(0), STOP_WITHIN_MS).unref();
    void (fleet?.close() ?? Promise.resolve()).then(() => process.exit(0));
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
}

function listen(server: ReturnType<typeof createServer>, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      const mayTryNext = error.code === 'EADDRINUSE' && !values['exact-port'] && port < wantedPort + PORTS_TRIED;
      if (mayTryNext) listen(server, port + 1).then(resolve, reject);
      else reject(error);
    });
    server.listen(port, values.host, () => {
      const address = server.address();
      resolve(typeof address === 'object' && address ? address.port : port);
    });
  });
}

await main();
