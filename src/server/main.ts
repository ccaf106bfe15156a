import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { getRequestListener } from '@hono/node-server';
import { Hono } from 'hono';
import { PORT_RANGE } from '../core/net/port-range.ts';
import type { Fleet } from '../standins/fleet.ts';
import { createRealFinder, discoveryTarget } from './adapters/real-finder.ts';
import { createSimulatedDialer, createSimulatedFinder, joined } from './adapters/simulated-network.ts';
import { systemClock, systemEntropy } from './adapters/system.ts';
import { createTcpDialer } from './adapters/tcp-dialer.ts';
import { createApp, type Demo } from './app.ts';
import { guardPages, oneName } from './guard.ts';
import { installLastGuard, logFault } from './last-guard.ts';
import { createBoundedServer, isLoopback, listen, namesOf, PortTaken } from './listening.ts';
import { Logins } from './logins.ts';
import { staticFiles } from './static-files.ts';
import { RunningWork } from './works/running-work.ts';
import { serveSockets } from './works/work-socket.ts';

const DEFAULT_PORT = 4180;
/** Whatever still hangs when the server is told to stop is cut off after this. */
const STOP_WITHIN_MS = 800;

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: String(DEFAULT_PORT) },
    host: { type: 'string', default: '127.0.0.1' },
    demo: { type: 'boolean', default: false },
    /** Where a question by WS-Discovery goes instead of to its group: for tests. */
    'discover-at': { type: 'string' },
    'allow-public': { type: 'boolean', default: false },
    /** The demo too must have the wanted port: for tests and proxies. */
    'exact-port': { type: 'boolean', default: false },
  },
});

const token = isLoopback(values.host) ? null : systemEntropy.hex(16);
const names = namesOf(values.host);
const wantedPort = Number(values.port);
let boundPort = wantedPort;
/** As a browser names it in its Host header: the port of HTTP itself is left out (RFC 9110 §7.2). */
const hostOf = (name: string): string => (boundPort === 80 ? name : `${name}:${boundPort}`);
const hosts = (): ReadonlySet<string> => new Set(names.map(hostOf));

async function main(): Promise<void> {
  if (!(Number.isInteger(wantedPort) && wantedPort >= 0 && wantedPort <= PORT_RANGE.max))
    throw new RangeError(`--port: expected 0 to 65535, got ${values.port}`);
  // Only the demo loads the simulated cameras.
  const standins = values.demo
    ? await Promise.all([
        import('../standins/fleet.ts'),
        import('../standins/alder-mill.ts'),
        import('../standins/alder-mill-network.ts'),
        import('../standins/faults/fault-gallery.ts'),
        import('../standins/faults/gallery-network.ts'),
      ])
    : null;
  const fleet: Fleet | null = standins
    ? await standins[0].startFleet(standins[0].ALDER_MILL_FLEET, {
        isAsDelivered: true,
        bystanders: standins[2].MILL_BYSTANDERS,
        reservations: standins[2].MILL_RESERVATIONS,
      })
    : null;
  const gallery = standins ? await standins[4].startGallery(standins[3].FAULT_GALLERY) : null;
  const dialer =
    fleet && gallery
      ? createSimulatedDialer(joined([fleet, gallery]))
      : createTcpDialer({ allowPublic: values['allow-public'] });
  const finder = fleet ? createSimulatedFinder(fleet) : createRealFinder(discoveryTarget(values['discover-at']));
  const logins = new Logins(systemClock, systemEntropy);
  const world = { dialer, finder, clock: systemClock, entropy: systemEntropy, logins };
  const demo: Demo | null =
    standins && fleet
      ? {
          site: () => ({
            site: standins[1].alderMill(new Date(systemClock.unixMs()).toISOString()),
            secrets: standins[1].alderMillSecrets(),
          }),
          // what each of them is, is told to nobody who learns
          faults: () => ({
            faults: standins[3].FAULT_GALLERY.map(({ id, name, told, url, user, secret, seconds, paths }) => ({
              id,
              name,
              told,
              url,
              user,
              secret,
              seconds,
              paths,
            })),
          }),
          router: ({ reserve, act }) => {
            if (reserve) fleet.router.reserve(reserve);
            if (act === 'cutPower') fleet.router.cutPower();
            return { reservations: fleet.router.reservations, leases: fleet.router.leaseFile() };
          },
          standin: async ({ host, inputs, account }) => {
            // a rehearsal is one also where no simulated camera is at hand; an account is set nowhere then
            if (!fleet.hasHost(host)) return account ? null : { states: [] };
            if (account) fleet.setAccount(host, { user: account.user, password: account.secret });
            return { states: (inputs && (await fleet.reflash(host, inputs))) ?? [] };
          },
        }
      : null;

  const folder = join(dirname(fileURLToPath(import.meta.url)), '..', 'web');
  const running = new RunningWork();
  const app = new Hono()
    .route('/', createApp({ world, network: fleet ? 'simulated' : 'real', demo, hosts, token, running }))
    .use(guardPages({ hosts }))
    .use(
      oneName(
        () => hostOf('localhost'),
        () => hostOf('127.0.0.1'),
      ),
    )
    .route('/', staticFiles(folder));
  const listener = getRequestListener(app.fetch);
  const server = createBoundedServer((request, response) => {
    listener(request, response).catch(logFault);
  });
  const sockets = serveSockets(server, world, { hosts, token }, running);
  boundPort = await listen(server, {
    host: values.host,
    port: wantedPort,
    mayMove: values.demo && !values['exact-port'],
  });
  installLastGuard();
  server.on('error', logFault);
  if (boundPort !== wantedPort && wantedPort !== 0) console.log(`Port ${wantedPort} is taken.`);
  const shown = isLoopback(values.host) ? names.slice(0, 1) : names;
  for (const name of shown) console.log(`Clear Tap: http://${hostOf(name)}/${token ? `?token=${token}` : ''}`);

  let isStopping = false;
  const stop = (): void => {
    if (isStopping) return;
    isStopping = true;
    setTimeout(() => process.exit(0), STOP_WITHIN_MS).unref();
    server.close();
    void farewell();
  };
  const farewell = async (): Promise<void> => {
    await running.endAll('Clear Tap stops.');
    sockets.close();
    server.closeAllConnections();
    await Promise.all([fleet?.close(), gallery?.close()]);
    process.exit(0);
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
}

try {
  await main();
} catch (error) {
  if (!(error instanceof PortTaken)) throw error;
  console.error(
    `${error.message} Something listens there, perhaps Clear Tap itself: look at http://127.0.0.1:${wantedPort}/ first.\n` +
      'It was not started on another port: a browser keeps sites by their address, and under another one it shows none.\n' +
      'Stop what runs there, or name a free port with --port; what was kept under the old address comes along as site files.',
  );
  process.exit(1);
}
