import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { basicAuthorization } from '../core/auth/authorization.ts';
import { framesKept, heatAfter, heatRun, type OldPhoneBody } from '../core/old-phone/heat.ts';
import { listenOnLoopback, shutServer } from './loopback-server.ts';
import type { OldPhonePersonality, Personality } from './personality.ts';
import { type EncodeGroup, type Picture, PictureFeed } from './pictures/picture-feed.ts';

/** As the thermal model of the planner has it: what is planned and what is simulated are the same body. */
const BODY: OldPhoneBody = { kelvinPerWatt: { open: 9, metal: 6, closed: 16 }, joulePerKelvin: 150 };
const WARM_C = 45;
const MINUTE_MS = 60_000;
/** A client this far behind is gone: it is cut off rather than buffered for. */
const MAX_UNSENT_BYTES = 2 * 1024 * 1024;

/** How warm a simulated handset is, and what it leaves out because of it. */
export function oldPhoneHeat({ roomC, mount, load, onForMin }: OldPhonePersonality, startedMs: number) {
  const run = heatRun(load, roomC, mount, BODY);
  const celsius = (): number => heatAfter(run, roomC, onForMin + (Date.now() - startedMs) / MINUTE_MS);
  return { celsius, keptShare: () => framesKept(celsius(), WARM_C) };
}

export interface OldPhonePages {
  readonly picturesPort: number;
  readonly pagePort: number;
  close(): Promise<void>;
}

interface PagesOptions {
  readonly personality: Personality;
  /** As it is set now. */
  readonly accountOf: () => Personality['account'];
  readonly handset: OldPhonePersonality;
  readonly encode: EncodeGroup;
  readonly heat: ReturnType<typeof oldPhoneHeat>;
}

/** Pictures by HTTP on one port, behind the account, and a page on another that tells how warm it is. */
export async function startOldPhonePages(options: PagesOptions): Promise<OldPhonePages> {
  const { personality, accountOf, handset, encode, heat } = options;
  const format = {
    scene: 'oven',
    label: personality.name,
    codec: 'JPEG',
    quantiser: 60,
    width: 480,
    height: 270,
  } as const;
  const feed = new PictureFeed({ ...format, fps: 4, groupFrames: 4 }, encode, 0, heat.keptShare);
  const admits = ({ headers }: IncomingMessage): boolean => {
    const account = accountOf();
    return !account || headers.authorization === basicAuthorization(account);
  };
  const pictures = createServer((request, response) => {
    if (request.method !== 'GET') return refuse(response, 405, 'Only GET.');
    if (!admits(request)) {
      response.setHeader('WWW-Authenticate', `Basic realm="${personality.realm}"`);
      return refuse(response, 401, 'An account is asked for.');
    }
    const [path] = (request.url ?? '').split('?', 1);
    if (path === handset.pictures.path) return givePicture(feed, response);
    if (path === handset.pictures.streamPath) return givePictures(feed, response);
    return refuse(response, 404, 'Nothing lies there.');
  });
  const page = createServer((_, response) => {
    const kept = Math.round(100 * heat.keptShare());
    response.writeHead(200, { 'Content-Type': 'text/html; charset=utf-8' });
    response.end(
      `<!doctype html><html lang="en"><title>${personality.name}</title><h1>${personality.name}</h1>` +
        `<p>Battery ${heat.celsius().toFixed(1)} °C, ${kept} of 100 frames given.</p>` +
        `<p>Stream on port ${personality.port}, pictures on port ${handset.pictures.port}.</p></html>`,
    );
  });
  const [picturesPort = 0, pagePort = 0] = await Promise.all(
    [pictures, page].map((server) => listenOnLoopback(server, 'OldPhone pages')),
  );
  return {
    picturesPort,
    pagePort,
    close: async () => {
      feed.stop();
      await Promise.all([shutServer(pictures), shutServer(page)]);
    },
  };
}

function refuse(response: ServerResponse, status: number, text: string): void {
  response.writeHead(status, { 'Content-Type': 'text/plain; charset=utf-8' });
  response.end(`${text}\n`);
}

/** The next picture of a feed, alone. */
function givePicture(feed: PictureFeed, response: ServerResponse): void {
  const unsubscribe = feed.subscribe(({ units: [jpeg] }) => {
    unsubscribe();
    if (!jpeg || response.destroyed) return;
    response.writeHead(200, { 'Content-Type': 'image/jpeg', 'Content-Length': jpeg.length });
    response.end(jpeg);
  });
  response.on('close', unsubscribe);
}

/** Picture after picture until the client goes. Source: RFC 2046 §5.1, with the subtype that browsers know. */
function givePictures(feed: PictureFeed, response: ServerResponse): void {
  const boundary = randomBytes(8).toString('hex');
  response.writeHead(200, {
    'Content-Type': `multipart/x-mixed-replace; boundary=${boundary}`,
    'Cache-Control': 'no-store',
  });
  const give = ({ units: [jpeg] }: Picture): void => {
    if (!jpeg || response.destroyed) return;
    if (response.writableLength > MAX_UNSENT_BYTES) return void response.destroy();
    response.write(`--${boundary}\r\nContent-Type: image/jpeg\r\nContent-Length: ${jpeg.length}\r\n\r\n`);
    response.write(jpeg);
    response.write('\r\n');
  };
  response.on('close', feed.subscribe(give));
}
