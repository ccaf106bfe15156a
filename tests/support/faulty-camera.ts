import { type AddressInfo, createServer, type Socket } from 'node:net';
import { type FakePacket, interleaved } from './fake-media.ts';
import { type Script, ScriptedServer } from './scripted-server.ts';

/** How a camera, or what stands in its place, behaves on one connection. */
export interface Behaviour {
  /** Done as soon as somebody connects, before a word is said. */
  readonly onConnect?: (socket: Socket) => void;
  /** Answers to requests; without it nothing is ever answered. */
  readonly script?: Script;
  /** Done once PLAY was answered. */
  readonly onPlay?: (socket: Socket) => void;
  /** How long each answer takes. */
  readonly delayMs?: number;
  /** Packets in the order sent, each with its frame; sent at `fps` once PLAY was answered. */
  readonly packets?: readonly FakePacket[];
}

export interface FaultyCamera {
  readonly port: number;
  readonly url: string;
  /** Connections so far, and those still open. */
  readonly dialled: () => number;
  readonly open: () => number;
  /** Requests with an Authorization header that one connection carried, at most. */
  readonly mostAuthorised: () => number;
  /** Every request of every connection, as text. */
  readonly heard: () => string;
  close(): Promise<void>;
}

const FPS = 15;

/** A camera that misbehaves, on a real loopback socket. */
export async function startFaultyCamera({
  onConnect,
  script,
  packets = [],
  onPlay,
  delayMs = 0,
}: Behaviour): Promise<FaultyCamera> {
  const sockets = new Set<Socket>();
  const timers = new Set<NodeJS.Timeout>();
  const conversations: ScriptedServer[] = [];
  let dialled = 0;
  const server = createServer((socket) => {
    dialled += 1;
    sockets.add(socket);
    socket.on('error', () => socket.destroy());
    const ownTimers = new Set<NodeJS.Timeout>();
    socket.on('close', () => {
      sockets.delete(socket);
      for (const timer of ownTimers) {
        clearInterval(timer);
        timers.delete(timer);
      }
    });
    onConnect?.(socket);
    const talk = new ScriptedServer(script ?? (() => ({ status: 200, raw: '' })));
    conversations.push(talk);
    socket.on('data', (chunk) => {
      const before = talk.requests.length;
      const say = (answer: Uint8Array): void => void (socket.writable && answer.length > 0 && socket.write(answer));
      for (const answer of talk.answer(chunk)) {
        if (delayMs > 0) setTimeout(() => say(answer), delayMs);
        else say(answer);
      }
      if (talk.methods.slice(before).includes('PLAY')) {
        onPlay?.(socket);
        const timer = sendPaced(socket, packets);
        ownTimers.add(timer);
        timers.add(timer);
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo; // a TCP server's address is an object
  const authorised = (talk: ScriptedServer): number =>
    talk.requests.filter(({ headers }) => headers.some(({ name }) => name === 'Authorization')).length;
  return {
    port,
    url: `rtsp://127.0.0.1:${port}/live`,
    dialled: () => dialled,
    open: () => sockets.size,
    mostAuthorised: () => Math.max(0, ...conversations.map(authorised)),
    heard: () => conversations.map(({ sent }) => sent).join('\n'),
    close: async () => {
      for (const timer of timers) clearInterval(timer);
      for (const socket of sockets) socket.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

/** Gives out each frame's packets when its time has come, however the timer jitters. */
function sendPaced(socket: Socket, packets: readonly FakePacket[]): NodeJS.Timeout {
  const startedMs = Date.now();
  let next = 0;
  const timer = setInterval(() => {
    const frame = Math.floor(((Date.now() - startedMs) * FPS) / 1000);
    for (let packet = packets[next]; packet && packet.frame <= frame; packet = packets[next]) {
      if (socket.writable) socket.write(interleaved(0, packet.bytes));
      next += 1;
    }
    if (next >= packets.length) clearInterval(timer);
  }, 8);
  return timer;
}
