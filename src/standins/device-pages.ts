import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { listenOnLoopback, shutServer } from './loopback-server.ts';
import type { ShownProfile } from './onvif/onvif-answers.ts';
import type { OnvifDevice } from './onvif/onvif-device.ts';
import type { OnvifAnswer } from './onvif/onvif-service.ts';
import type { DevicePage } from './personality.ts';

/** More in one request is no envelope. */
const MOST_BYTES = 64 * 1024;

async function bodyOf(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const chunk of request) {
    text += String(chunk);
    if (text.length > MOST_BYTES) break;
  }
  return text;
}

export interface DevicePages {
  /** Loopback port it really listens on. */
  readonly port: number;
  close(): Promise<void>;
}

export interface PagesOptions {
  readonly page: DevicePage;
  readonly onvif: OnvifDevice | null;
  /** One picture of a stream, as it is now. */
  readonly still: (profile: ShownProfile) => Promise<Uint8Array>;
  readonly answerDelayMs: number;
}

/** The web page of a simulated device, the doors of its ONVIF services, and its stills. */
export async function startDevicePages({ page, onvif, still, answerDelayMs }: PagesOptions): Promise<DevicePages> {
  const serveOnvif = async (device: OnvifDevice, request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const gone = new AbortController();
    response.on('close', () => gone.abort());
    const asked = await bodyOf(request);
    const answer = await device.answer(asked, request, gone.signal);
    if (answerDelayMs > 0) await new Promise((resolve) => setTimeout(resolve, answerDelayMs));
    if (response.destroyed) return;
    if (page.onvif?.answersTwice) return twice(response, answer);
    response
      .writeHead(answer.status, { ...answer.headers, 'Content-Length': Buffer.byteLength(answer.body) })
      .end(answer.body);
  };
  const serveStill = async (
    profile: ShownProfile,
    device: OnvifDevice,
    request: IncomingMessage,
    response: ServerResponse,
  ): Promise<void> => {
    if (!device.admitsStill(request))
      return void response.writeHead(401, { 'WWW-Authenticate': device.challenge }).end();
    const picture = await still(profile);
    response.writeHead(200, { 'Content-Type': 'image/jpeg', 'Content-Length': picture.length }).end(picture);
  };
  const server = createServer((request, response) => {
    response.setHeader('Server', page.server);
    const url = request.url ?? '';
    const failed = (): void => void response.destroy(); // as a device would
    if (request.method === 'POST' && onvif?.isMine(url)) return void serveOnvif(onvif, request, response).catch(failed);
    const profile = request.method === 'GET' ? onvif?.snapshotOf(url) : null;
    if (onvif && profile) return void serveStill(profile, onvif, request, response).catch(failed);
    if (request.method !== 'GET' || url !== '/') {
      response.writeHead(404, { 'Content-Type': 'text/plain; charset=utf-8' }).end('Nothing lies there.\n');
      return;
    }
    response.writeHead(200, { 'Content-Type': 'text/html; charset=utf-8' });
    response.end(`<!doctype html><html lang="en"><title>${page.title}</title><h1>${page.title}</h1></html>`);
  });
  const port = await listenOnLoopback(server, page.title);
  return {
    port,
    close: async () => {
      onvif?.close();
      await shutServer(server);
    },
  };
}

/** The whole answer, and then the same once more, as some firmware does after a retry of its own. */
function twice(response: ServerResponse, { status, headers, body }: OnvifAnswer): void {
  const { socket } = response;
  if (!socket) return;
  const head = Object.entries({ ...headers, 'Content-Length': Buffer.byteLength(body) }).map(
    ([name, value]) => `${name}: ${value}\r\n`,
  );
  const text = `HTTP/1.1 ${status} ${status === 200 ? 'OK' : 'Refused'}\r\n${head.join('')}\r\n${body}`;
  response.detachSocket(socket);
  socket.write(text + text);
  socket.end();
}
