import { type Dialer, DialFailure } from '../ports.ts';
import { dialTcp } from './tcp-dialer.ts';
import { openUdpPair } from './udp-pair.ts';

export interface SimulatedNetwork {
  loopbackPort(host: string, port: number): number | undefined;
  hasHost(host: string): boolean;
}

/**
 * The demo's only network: planned addresses lead to loopback ports of stand-ins, anything else cannot be reached.
 * No real address is ever dialled through it.
 */
export function createSimulatedDialer(network: SimulatedNetwork): Dialer {
  return {
    resolve: async (host, port) => {
      if (!/^[\d.]+$|:/.test(host))
        throw new DialFailure('unresolved-host', `The name ${host} leads to no address in the simulated network.`);
      return { address: host, port, note: null };
    },
    dial: async ({ address, port }, events, limits) => {
      if (!network.hasHost(address))
        throw new DialFailure('unreachable', `Nothing answers at ${address} in the simulated network.`);
      const loopbackPort = network.loopbackPort(address, port);
      if (loopbackPort === undefined)
        throw new DialFailure('refused', `${address}:${port} refused the connection: nothing listens there.`);
      return dialTcp('127.0.0.1', loopbackPort, events, limits);
    },
    openUdp: (_, onDatagram) => openUdpPair('127.0.0.1', onDatagram),
  };
}
