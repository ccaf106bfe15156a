import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { type WebSocket, WebSocketServer } from 'ws';
import { LIVE_PROTOCOL } from '../../contract/app-header.ts';
import { liveRequestSchema } from '../../contract/probe-api.ts';
import type { World } from '../drive.ts';
import { type GuardOptions, isOwnOrigin } from '../guard.ts';
import { logFault } from '../last-guard.ts';
import { type Refusal, refuse } from '../listening.ts';
import type { RunningWork } from '../running-work.ts';
import { runLiveView } from './live-view.ts';

const LIVE_PATH = '/api/live';
const MAX_REQUEST_BYTES = 16 * 1024;
/** A page this far behind drops pictures until it has caught up; it starts again at a key frame. */
const MAX_UNSENT_BYTES = 4 * 1024 * 1024;
const MAX_VIEWS = 16;
/** Our page says at once which stream it wants; a socket that does not is somebody else's. */
const FIRST_WORD_MS = 5000;

/** The path of a request line, whatever stands in it: `//` and the like are no address and throw nothing. */
const pathOf = (target: string): string => target.split('?', 1)[0] ?? '';

/** Live pictures over WebSocket at /api/live. The first message says which stream; closing ends the session at the camera. */
export function serveLiveViews(
  server: Server,
  world: World,
  { hosts, token }: GuardOptions,
  views: RunningWork,
): { close(): void } {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MAX_REQUEST_BYTES });
  const refusalOf = (request: IncomingMessage): Refusal | null => {
    const protocols = (request.headers['sec-websocket-protocol'] ?? '').split(',').map((text) => text.trim());
    if (!isOwnOrigin({ host: request.headers.host, origin: request.headers.origin }, hosts())) return '403 Forbidden';
    if (pathOf(request.url ?? '') !== LIVE_PATH) return '404 Not Found';
    if (!protocols.includes(LIVE_PROTOCOL)) return '403 Forbidden';
    if (token !== null && !protocols.includes(token)) return '403 Forbidden';
    return sockets.clients.size >= MAX_VIEWS ? '503 Service Unavailable' : null;
  };
  const onUpgrade = (request: IncomingMessage, socket: Duplex, head: Buffer): void => {
    socket.on('error', () => socket.destroy()); // first of all: from here on nobody else listens to it
    try {
      const refusal = refusalOf(request);
      if (refusal) return refuse(socket, refusal);
      sockets.handleUpgrade(request, socket, head, (webSocket) => serveView(webSocket, world, views));
    } catch (error) {
      logFault(error);
      refuse(socket, '400 Bad Request');
    }
  };
  server.on('upgrade', onUpgrade);
  return {
    close: () => {
      server.off('upgrade', onUpgrade);
      for (const client of sockets.clients) client.terminate();
      sockets.close();
    },
  };
}

function serveView(socket: WebSocket, world: World, views: RunningWork): void {
  const controller = new AbortController();
  const stop = (): void => controller.abort(new Error('The page went away.'));
  socket.on('error', stop);
  socket.on('close', stop);
  const silence = setTimeout(() => socket.close(1008, 'Expected a request'), FIRST_WORD_MS);
  socket.once('close', () => clearTimeout(silence));
  socket.once('message', (data) => {
    clearTimeout(silence);
    let request: unknown;
    try {
      request = JSON.parse(String(data));
    } catch {
      return socket.close(1007, 'Expected JSON');
    }
    if (!liveRequestSchema.isValidSync(request, { strict: true }))
      return socket.close(1008, 'Expected url, user and secret');
    const wanted = request;
    const sink = {
      text: (message: object) => socket.send(JSON.stringify(message)),
      binary: (bytes: Uint8Array) => {
        if (socket.bufferedAmount < MAX_UNSENT_BYTES) socket.send(bytes);
      },
      close: () => socket.close(),
    };
    views
      .run(controller, (signal) => runLiveView(wanted, world, signal, sink))
      .catch((error: unknown) => {
        logFault(error);
        socket.close(1011, 'Our mistake');
      });
  });
}
