import { createSocket, type Socket } from 'node:dgram';
import { DialFailure, type Discovery } from '../ports.ts';

/** More in one datagram is no answer. */
const MOST_BYTES = 64 * 1024;

interface SocketOptions {
  /** Own address that the question goes out by. */
  readonly from: string;
  readonly isMulticast: boolean;
  readonly onAnswer: (host: string, port: number, chunk: Uint8Array) => void;
}

function openSocket({ from, isMulticast, onAnswer }: SocketOptions): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = createSocket('udp4');
    let isBound = false;
    // Once it is bound, what fails is one datagram; who does not answer is not found.
    socket.on('error', (error) => {
      if (isBound) return;
      reject(new DialFailure('transport-refused', `No socket for WS-Discovery: ${error.message}.`));
      socket.close();
    });
    socket.on('message', (chunk, { address, port }) => {
      if (chunk.length <= MOST_BYTES) onAnswer(address, port, chunk);
    });
    socket.bind({ port: 0, address: from }, () => {
      isBound = true;
      if (isMulticast) {
        socket.setMulticastInterface(from);
        socket.setMulticastTTL(1); // it stays in its network (WS-Discovery §2.4)
      }
      resolve(socket);
    });
  });
}

export interface Question {
  readonly host: string;
  readonly port: number;
}

/** One question to the same places by each of several own addresses. */
export async function openDiscovery(
  options: readonly SocketOptions[],
  questions: () => readonly Question[],
): Promise<Discovery> {
  const sockets = await Promise.all(options.map(openSocket));
  let isOpen = true;
  return {
    ask: (bytes) => {
      for (const socket of isOpen ? sockets : [])
        for (const { host, port } of questions()) socket.send(bytes, port, host, () => {}); // lost ones are asked again
    },
    close: () => {
      if (!isOpen) return;
      isOpen = false;
      for (const socket of sockets) socket.close();
    },
  };
}

/** The same on loopback, where each port is somebody else. */
export const askLoopback = (
  ports: () => readonly number[],
  onAnswer: (port: number, chunk: Uint8Array) => void,
): Promise<Discovery> =>
  openDiscovery([{ from: '127.0.0.1', isMulticast: false, onAnswer: (_, port, chunk) => onAnswer(port, chunk) }], () =>
    ports().map((port) => ({ host: '127.0.0.1', port })),
  );
