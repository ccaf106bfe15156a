import { type AddressInfo, connect, type Socket } from 'node:net';
import { createServer } from 'node:tls';
import { CERTIFICATES } from '../../src/standins/certificates.ts';

/** The same over TLS: what is said to this port is said to the other one, without the encryption. */
export async function encrypted(
  port: number,
  shows: keyof typeof CERTIFICATES = 'self-signed',
): Promise<{ readonly port: number; close(): Promise<void> }> {
  const { key, cert } = CERTIFICATES[shows];
  const sockets = new Set<Socket>();
  const server = createServer({ key, cert }, (outer) => {
    const inner = connect({ port, host: '127.0.0.1' });
    for (const one of [outer, inner]) {
      sockets.add(one);
      one.on('error', () => [outer, inner].map((each) => each.destroy()));
    }
    outer.pipe(inner).pipe(outer);
  });
  server.on('tlsClientError', () => {}); // who hangs up in the middle
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    port: (server.address() as AddressInfo).port,
    close: () => {
      for (const socket of sockets) socket.destroy();
      return new Promise((resolve) => server.close(() => resolve()));
    },
  };
}
