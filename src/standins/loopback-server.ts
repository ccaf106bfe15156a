import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';

/** Listens on a free loopback port, and gives it. */
export async function listenOnLoopback(server: Server, name: string): Promise<number> {
  server.on('clientError', (_, socket) => socket.destroy());
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  server.removeAllListeners('error');
  server.on('error', (error) => console.error(`${name}: ${error.message}`));
  return (server.address() as AddressInfo).port; // a TCP server's address is an object
}

export async function shutServer(server: Server): Promise<void> {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
}
