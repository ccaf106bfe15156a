import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { type WebSocket, WebSocketServer } from 'ws';
import { LIVE_PROTOCOL } from '../../contract/app-header.ts';
import { liveRequestSchema } from '../../contract/probe-api.ts';
import { type GuardOptions, isOwnOrigin } from '../guard.ts';
import type { ProbeWorld } from '../probe/run-probe.ts';
import { runLiveView } from './live-view.ts';

const MAX_REQUEST_BYTES = 16 * 1024;
/** A page this far behind drops pictures until it has caught up; it starts again at a key frame. */
const MAX_UNSENT_BYTES = 4 * 1024 * 1024;
const MAX_VIEWS = 16;

/** Live pictures over WebSocket at /api/live. The first message says which stream; closing ends the session at once. */
export function serveLiveViews(server: Server, world: ProbeWorld, { hosts, token }: GuardOptions): { close(): void } {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MAX_REQUEST_BYTES });
  const onUpgrade = (request: IncomingMessage, socket: Duplex, head: Buffer): void => {
    const url = new URL(request.url ?? '/', 'http://local');
    if (url.pathname !== '/api/live') return;
    const protocols = (request.headers['sec-websocket-protocol'] ?? '').split(',').map((text) => text.trim());
    const isOurs =
      isOwnOrigin({ host: request.headers.host, origin: request.headers.origin }, hosts()) &&
      protocols.includes(LIVE_PROTOCOL);
    const isAllowed = token === null || protocols.includes(token);
    if (!isOurs || !isAllowed || sockets.clients.size >= MAX_VIEWS) {
      socket.end(
        `HTTP/1.1 ${isOurs && isAllowed ? '503 Service Unavailable' : '403 Forbidden'}\r\nConnection: close\r\n\r\n`,
      );
      return;
    }
    sockets.handleUpgrade(request, socket, head, (webSocket) => serveView(webSocket, world));
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

function serveView(socket: WebSocket, world: ProbeWorld): void {
  const controller = new AbortController();
  const stop = (): void => controller.abort(new Error('The page went away.'));
  socket.on('close', stop);
  socket.on('error', stop);
  socket.once('message', (data) => {
    let request: unknown;
    try {
      request = JSON.parse(String(data));
    } catch {
      return socket.close(1007, 'Expected JSON');
    }
    if (!liveRequestSchema.isValidSync(request, { strict: true }))
      return socket.close(1008, 'Expected url, user and secret');
    const sink = {
      text: (message: object) => socket.send(JSON.stringify(message)),
      binary: (bytes: Uint8Array) => {
        if (socket.bufferedAmount < MAX_UNSENT_BYTES) socket.send(bytes);
      },
      close: () => socket.close(),
    };
    runLiveView(request, world, controller.signal, sink).catch((error: unknown) => {
      console.error(error);
      socket.close(1011, 'Our mistake');
    });
  });
}
