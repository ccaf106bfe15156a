import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { type WebSocket, WebSocketServer } from 'ws';
import { ValidationError } from 'yup';
import { LIVE_PROTOCOL } from '../../contract/app-header.ts';
import { readJson } from '../../core/base/read-json.ts';
import type { World } from '../drive.ts';
import { type GuardOptions, isOwnOrigin } from '../guard.ts';
import { logFault } from '../last-guard.ts';
import { type Refusal, refuse } from '../listening.ts';
import { createSafely } from '../safely.ts';
import type { RunningWork } from './running-work.ts';
import { Unread } from './unread.ts';
import type { MessageSource, Work } from './work.ts';
import { SOCKET_WORKS } from './works.ts';

const MAX_REQUEST_BYTES = 16 * 1024;
/** A page this far behind drops pictures until it has caught up; it starts again at a key frame. */
const MAX_UNSENT_BYTES = 4 * 1024 * 1024;
/** Our page says at once what it wants; a socket that does not is somebody else's. */
const FIRST_WORD_MS = 5000;
const LOOK_MS = 1000;

/** The work that a request line asks for, whatever stands in it: `//` and the like are no address and throw nothing. */
const workAt = (target: string): Work | undefined => {
  const [, name] = /^\/api\/([a-z]{1,20})$/.exec(target.split('?', 1)[0] ?? '') ?? [];
  return name === undefined ? undefined : SOCKET_WORKS.get(name);
};

/** Work over WebSockets. Closing one ends the session at the camera. */
export function serveSockets(
  server: Server,
  world: World,
  { hosts, token }: GuardOptions,
  running: RunningWork,
): { close(): void } {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MAX_REQUEST_BYTES });
  const open = new Map<WebSocket, Work>();
  const refusalOf = (request: IncomingMessage, work: Work | undefined): Refusal | null => {
    const protocols = (request.headers['sec-websocket-protocol'] ?? '').split(',').map((text) => text.trim());
    if (!isOwnOrigin({ host: request.headers.host, origin: request.headers.origin }, hosts())) return '403 Forbidden';
    if (!work) return '404 Not Found';
    if (!protocols.includes(LIVE_PROTOCOL)) return '403 Forbidden';
    if (token !== null && !protocols.includes(token)) return '403 Forbidden';
    return [...open.values()].filter((one) => one === work).length >= work.most ? '503 Service Unavailable' : null;
  };
  const onUpgrade = (request: IncomingMessage, socket: Duplex, head: Buffer): void => {
    socket.on('error', () => socket.destroy()); // first of all: from here on nobody else listens to it
    try {
      const work = workAt(request.url ?? '');
      const refusal = refusalOf(request, work);
      if (refusal || !work) return refuse(socket, refusal ?? '404 Not Found');
      sockets.handleUpgrade(request, socket, head, (webSocket) => {
        open.set(webSocket, work);
        webSocket.once('close', () => open.delete(webSocket));
        serve(webSocket, work, world, running);
      });
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

function serve(socket: WebSocket, work: Work, world: World, running: RunningWork): void {
  const controller = new AbortController();
  const stop = (): void => controller.abort(new Error('The page went away.'));
  socket.on('error', stop);
  socket.on('close', stop);
  const safely = createSafely((error) => {
    // a word that is none ends the work: what else it was to say nobody knows
    if (!(error instanceof ValidationError)) logFault(error);
    socket.close(1008, 'Expected another word');
  });
  const silence = setTimeout(() => socket.close(1008, 'Expected a request'), FIRST_WORD_MS);
  socket.once('close', () => clearTimeout(silence));
  socket.once('message', (data) => {
    clearTimeout(silence);
    const asked = parsed(String(data));
    if (asked === undefined) return socket.close(1007, 'Expected JSON');
    let start: ReturnType<Work['accept']>;
    try {
      start = work.accept(asked);
    } catch {
      return socket.close(1008, 'Expected another request');
    }
    const heard: MessageSource = (listener) => {
      socket.on('message', (word) => {
        const said = parsed(String(word));
        if (said !== undefined) safely(() => listener(said));
      });
    };
    const out = {
      sendEvent: (event: object) => socket.send(JSON.stringify(event)),
      sendFrame: (bytes: Uint8Array<ArrayBuffer>) => {
        if (socket.bufferedAmount < MAX_UNSENT_BYTES) socket.send(bytes);
      },
    };
    const unread = new Unread(performance.now());
    const watch = setInterval(() => {
      if (unread.isGone(socket.bufferedAmount, performance.now())) socket.terminate();
    }, LOOK_MS);
    socket.once('close', () => clearInterval(watch));
    // Whatever came of it, the page is let go.
    running
      .run(work, controller, (signal) => start(world, signal, out, heard))
      .catch((error: unknown) => {
        if (!controller.signal.aborted) logFault(error);
      })
      .finally(() => createSafely(logFault)(() => socket.close()));
  });
}

function parsed(text: string): unknown {
  const read = readJson(text);
  return read.ok ? read.value : undefined;
}
