import { createSocket, type Socket } from 'node:dgram';
import { isIPv6 } from 'node:net';
import { isSameAddress } from '../../core/net/same-address.ts';
import { guardedBy } from '../last-guard.ts';
import { DialFailure, type UdpPair } from '../ports.ts';

/** How often a neighbouring pair is looked for; the system gives a random even port about every second time. */
const ATTEMPTS = 40;
/** A key frame arrives at once; the system's default buffer is too small for it. */
const RECEIVE_BUFFER_BYTES = 1024 * 1024;

function bind(type: 'udp4' | 'udp6', port: number): Promise<Socket | null> {
  return new Promise((resolve) => {
    const socket = createSocket({ type, recvBufferSize: RECEIVE_BUFFER_BYTES });
    let isBound = false;
    // Once bound, an error is an ICMP refusal of our report: the stream itself tells more.
    socket.on('error', () => {
      if (isBound) return;
      socket.close();
      resolve(null);
    });
    socket.bind(port, () => {
      isBound = true;
      resolve(socket);
    });
  });
}

/**
 * Binds an even port and the next (RFC 3550 §11) and hands on what comes from `address` alone: other senders are not
 * listened to.
 */
export async function openUdpPair(
  address: string,
  onDatagram: (isRtcp: boolean, chunk: Uint8Array) => void,
  signal: AbortSignal,
): Promise<UdpPair> {
  const type = isIPv6(address) ? 'udp6' : 'udp4';
  for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
    const rtp = await bind(type, 0);
    if (!rtp) break;
    const { port } = rtp.address();
    const rtcp = port % 2 === 0 ? await bind(type, port + 1) : null;
    if (rtcp) return pairOf(rtp, rtcp, address, onDatagram, signal);
    rtp.close();
  }
  throw new DialFailure('transport-refused', 'No two neighbouring UDP ports are free on this computer.');
}

function pairOf(
  rtp: Socket,
  rtcp: Socket,
  address: string,
  onDatagram: (isRtcp: boolean, chunk: Uint8Array) => void,
  signal: AbortSignal,
): UdpPair {
  let isOpen = true;
  const guarded = guardedBy(signal);
  for (const socket of [rtp, rtcp])
    socket.on(
      'message',
      guarded((chunk: Uint8Array, from: { readonly address: string }) => {
        if (isOpen && isSameAddress(from.address, address)) onDatagram(socket === rtcp, chunk);
      }),
    );
  return {
    ports: [rtp.address().port, rtcp.address().port],
    send: (isRtcp, port, bytes) => {
      if (isOpen) (isRtcp ? rtcp : rtp).send(bytes, port, address);
    },
    close: () => {
      if (!isOpen) return;
      isOpen = false;
      rtp.close();
      rtcp.close();
    },
  };
}
