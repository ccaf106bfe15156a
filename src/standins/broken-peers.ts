import { type AddressInfo, createServer, type Socket } from 'node:net';

/** Peers that are no camera, or a camera that is past helping. */
export const BROKEN_PEERS = {
  /** Accepts and says nothing. */
  silent: () => {},
  /** Sends bytes that are no protocol. */
  garbage: (socket: Socket) =>
    socket.write(Buffer.from([0x16, 0x03, 0x01, 0xff, 0x00, 0x9c, 0x07, 0x45, 0x80, 0x00, 0x1b])),
  /** A web page answers. */
  web: (socket: Socket) =>
    socket.once('data', () => socket.end('HTTP/1.1 400 Bad Request\r\nContent-Type: text/html\r\n\r\n<html>')),
  /** Hangs up at once. */
  closing: (socket: Socket) => socket.end(),
} as const satisfies Record<string, (socket: Socket) => unknown>;
export type BrokenPeerKind = keyof typeof BROKEN_PEERS;

/** Starts one on a loopback port. */
export async function startBrokenPeer(
  kind: BrokenPeerKind,
): Promise<{ readonly port: number; close(): Promise<void> }> {
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => socket.destroy());
    socket.on('close', () => sockets.delete(socket));
    socket.resume();
    BROKEN_PEERS[kind](socket);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo; // a TCP server's address is an object
  return {
    port,
    close: async () => {
      for (const socket of sockets) socket.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}
