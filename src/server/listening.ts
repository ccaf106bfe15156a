import { createServer, type RequestListener, type Server } from 'node:http';
import { isIPv6 } from 'node:net';
import { networkInterfaces } from 'node:os';
import type { Duplex } from 'node:stream';

/** A page opens a few connections; more are somebody else. */
const MAX_CONNECTIONS = 256;
/** A request that has not said what it wants by then never will; `checkMs` is how often connections are looked over for such. */
const PATIENCE = { headersMs: 10_000, requestMs: 20_000, checkMs: 2000 };
/** Work that says nothing sends an empty line now and then; a connection that is silent for longer is nobody's. */
const SILENCE_MS = 150_000;
/** A refusal is a few bytes; a peer that does not take them is cut off. */
const REFUSAL_MS = 500;
/** How many ports above the wanted one are tried before giving up. */
const PORTS_TRIED = 20;

/** Every address that means “all of this computer”. */
const ANY: ReadonlySet<string> = new Set(['0.0.0.0', '::', '0:0:0:0:0:0:0:0']);
const LOOPBACK: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost']);

/** Whether nobody but this computer can reach a server that listens there. */
export const isLoopback = (host: string): boolean => LOOPBACK.has(host);

const urlName = (address: string): string => (isIPv6(address) ? `[${address}]` : address);

/**
 * Names under which a server that listens at `host` may be asked for, the one to print first: those of this computer's
 * networks when it listens on all of them. Link-local IPv6 needs a zone, which no Host header carries: it is left out.
 */
export function namesOf(host: string): readonly string[] {
  if (isLoopback(host)) return ['127.0.0.1', 'localhost'];
  if (!ANY.has(host)) return [urlName(host.toLowerCase())];
  const own = Object.values(networkInterfaces())
    .flatMap((addresses) => addresses ?? [])
    .filter(({ family, address }) => family === 'IPv4' || (host !== '0.0.0.0' && !address.startsWith('fe80')))
    .sort((a, b) => Number(a.internal) - Number(b.internal));
  return own.map(({ address }) => urlName(address.toLowerCase()));
}

/** An HTTP server that no peer can keep waiting for ever. */
export function createBoundedServer(answer: RequestListener, patience = PATIENCE): Server {
  const server = createServer(
    {
      headersTimeout: patience.headersMs,
      requestTimeout: patience.requestMs,
      connectionsCheckingInterval: patience.checkMs,
    },
    answer,
  );
  server.maxConnections = MAX_CONNECTIONS;
  server.setTimeout(SILENCE_MS);
  // A socket that was handed on, or that failed before its first request, has no other listener: none may be unheard.
  server.on('connection', (socket) => socket.on('error', () => socket.destroy()));
  server.on('clientError', refuseBroken);
  return server;
}

/** What Node says of a request that cannot be read, and what its peer is answered. */
const ANSWERS: Readonly<Record<string, Refusal>> = {
  ERR_HTTP_REQUEST_TIMEOUT: '408 Request Timeout',
  HPE_HEADER_OVERFLOW: '431 Request Header Fields Too Large',
};

/**
 * A browser connects before it has a question, and takes whatever comes back for the answer to its next one: a connection
 * that asked nothing is closed without a word, and only what was begun is answered.
 */
function refuseBroken({ code = '' }: NodeJS.ErrnoException, socket: Duplex): void {
  if ('bytesRead' in socket && socket.bytesRead === 0) return void socket.destroy();
  refuse(socket, ANSWERS[code] ?? '400 Bad Request');
}

export type Refusal =
  | '400 Bad Request'
  | '403 Forbidden'
  | '404 Not Found'
  | '408 Request Timeout'
  | '431 Request Header Fields Too Large'
  | '503 Service Unavailable';

/** Answers what is no request of ours and cuts the connection: a half-open one would count among the others for ever. */
export function refuse(socket: Duplex, refusal: Refusal): void {
  if (!socket.writable) return void socket.destroy();
  const cutOff = setTimeout(() => socket.destroy(), REFUSAL_MS);
  socket.once('close', () => clearTimeout(cutOff));
  socket.end(`HTTP/1.1 ${refusal}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`, () => socket.destroy());
}

/** The wanted port is in use. */
export class PortTaken extends Error {
  override readonly name = 'PortTaken';
}

/** Listens on the port, or on the next free one where that is allowed; the port it became. */
export function listen(
  server: Server,
  { host, port, mayMove }: { readonly host: string; readonly port: number; readonly mayMove: boolean },
): Promise<number> {
  const attempt = (wanted: number): Promise<number> =>
    new Promise((resolve, reject) => {
      const failed = (error: NodeJS.ErrnoException): void => {
        if (error.code !== 'EADDRINUSE') return reject(error);
        if (!mayMove || wanted >= port + PORTS_TRIED) return reject(new PortTaken(`Port ${wanted} is taken.`));
        attempt(wanted + 1).then(resolve, reject);
      };
      server.once('error', failed);
      server.listen(wanted, host, () => {
        server.off('error', failed);
        const address = server.address();
        resolve(typeof address === 'object' && address ? address.port : wanted);
      });
    });
  return attempt(port);
}
