import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { createServer as createTlsServer } from 'node:tls';
import { CERTIFICATES } from './certificates.ts';
import type { Refusals } from './login-guard.ts';
import type { Personality, StreamPersonality } from './personality.ts';
import { LoopFeed } from './pictures/loop-feed.ts';
import { type EncodeGroup, type Feed, type FeedHead, PictureFeed } from './pictures/picture-feed.ts';
import { type AllSessions, RtspConnection, type SessionEnd } from './rtsp-connection.ts';
import { plainLine, type RtspLine } from './rtsp-line.ts';
import { TunnelDoor } from './tunnel-door.ts';

export type { SessionEnd } from './rtsp-connection.ts';

export interface RtspStandIn {
  readonly personality: Personality;
  /** Loopback port it really listens on; another one where it was taken while the camera was closed. */
  readonly port: number;
  /** Sessions that are drawing now. */
  readonly sessions: () => number;
  /** Logins that it refused. */
  readonly refusals: () => number;
  /** Sets its account, as its own page would. */
  setAccount(account: NonNullable<Personality['account']>): void;
  /** Opens or closes its port: a firmware that gives no stream refuses whoever dials. */
  setListening(isOn: boolean): Promise<void>;
  close(): Promise<void>;
}

const portOf = (server: Server): number => (server.address() as AddressInfo).port; // a TCP server's address is an object

/** Starts a simulated camera on a loopback port. It speaks RTSP 1.0 to any client, packets over TCP or UDP. */
export async function startRtspStandIn(
  personality: Personality,
  encode: EncodeGroup,
  onSessionEnd: (end: SessionEnd) => void = () => {},
  { keptShare = () => 1, head = null }: { readonly keptShare?: () => number; readonly head?: FeedHead | null } = {},
): Promise<RtspStandIn> {
  const feedOf = ({ format, loop }: StreamPersonality): Feed =>
    loop
      ? new LoopFeed(loop, personality.clockErrorMs)
      : new PictureFeed(format, encode, personality.clockErrorMs, keptShare, head);
  const feeds = new Map(personality.streams.map((stream) => [stream.path, feedOf(stream)]));
  const connections = new Set<RtspConnection>();
  const sockets = new Set<Socket>();
  const refusals: Refusals = { count: 0 };
  let account = personality.account;
  const all: AllSessions = {
    count: () => [...connections].reduce((sum, { sessionCount }) => sum + sessionCount, 0),
    first: () => [...connections].find(({ sessionCount }) => sessionCount > 0) ?? null,
  };
  const open = (line: RtspLine): ((chunk: Uint8Array) => void) => {
    const connection = new RtspConnection(line, {
      personality: { ...personality, account },
      feeds,
      all,
      refusals,
      onSessionEnd,
    });
    connections.add(connection);
    line.onClose(() => connections.delete(connection));
    return (chunk) => connection.take(chunk);
  };
  const door = new TunnelDoor(open);
  const { line } = personality.odd ?? {};
  const admit = (socket: Socket): void => {
    socket.on('error', () => socket.destroy());
    socket.setNoDelay(true);
    sockets.add(socket);
    socket.once('close', () => sockets.delete(socket));
    if (line === 'tunnel') return door.take(socket);
    socket.on('data', open(plainLine(socket)));
  };
  const server: Server =
    line === 'self-signed' || line === 'expired' ? createTlsServer(CERTIFICATES[line], admit) : createServer(admit);
  // what a client of TLS does wrong ends its own connection
  server.on('tlsClientError', (_, socket: Socket) => socket.destroy());
  const listen = (port: number): Promise<void> =>
    new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(port, '127.0.0.1', () => {
        server.off('error', reject);
        resolve();
      });
    });
  const shut = (): Promise<void> => {
    for (const connection of connections) connection.close();
    for (const socket of sockets) socket.destroy();
    for (const feed of feeds.values()) feed.stop();
    return new Promise((resolve) => server.close(() => resolve()));
  };
  await listen(0);
  // Drawn and encoded once before anybody dials, so that the first description is not late.
  for (const feed of feeds.values()) await feed.parameterSets();
  let port = portOf(server);
  const openAgain = async (): Promise<void> => {
    await listen(port).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'EADDRINUSE') throw error;
      return listen(0); // somebody took it meanwhile
    });
    port = portOf(server);
  };
  return {
    personality,
    get port() {
      return port;
    },
    sessions: all.count,
    refusals: () => refusals.count,
    setAccount: (other) => {
      account = other;
    },
    setListening: async (isOn) => {
      if (isOn !== server.listening) await (isOn ? openAgain() : shut());
    },
    close: shut,
  };
}
