import { createSocket, type Socket } from 'node:dgram';

/** The camera's end of a track over UDP. */
export interface UdpSender {
  readonly ports: readonly [number, number];
  sendRtp(packet: Uint8Array): void;
  sendRtcp(packet: Uint8Array): void;
  close(): void;
}

const bind = (): Promise<Socket> =>
  new Promise((resolve, reject) => {
    const socket = createSocket('udp4');
    socket.once('error', reject);
    socket.bind(0, '127.0.0.1', () => resolve(socket));
  });

/** Opens two ports and sends to a client's two; what the client sends to the second is handed on. */
export async function openUdpSender(
  address: string,
  clientPorts: readonly [number, number],
  onRtcp: (packet: Uint8Array) => void,
): Promise<UdpSender> {
  const [rtp, rtcp] = await Promise.all([bind(), bind()]);
  rtcp.on('message', onRtcp);
  let isOpen = true;
  for (const socket of [rtp, rtcp]) socket.on('error', () => {}); // a client that closed its ports
  const send = (socket: Socket, port: number) => (packet: Uint8Array) => {
    if (isOpen) socket.send(packet, port, address);
  };
  return {
    ports: [rtp.address().port, rtcp.address().port],
    sendRtp: send(rtp, clientPorts[0]),
    sendRtcp: send(rtcp, clientPorts[1]),
    close: () => {
      if (!isOpen) return;
      isOpen = false;
      rtp.close();
      rtcp.close();
    },
  };
}
