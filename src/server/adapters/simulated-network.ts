import { setTimeout as wait } from 'node:timers/promises';
import { type Dialer, DialFailure, type Finder, type Limits } from '../ports.ts';
import { askLoopback } from './discovery-socket.ts';
import { dialTcp } from './tcp-dialer.ts';
import { openUdpPair } from './udp-pair.ts';

export interface SimulatedNetwork {
  loopbackPort(host: string, port: number): number | undefined;
  hasHost(host: string): boolean;
  /** Whether calls to this port are dropped on the way. */
  isDropped?(host: string, port: number): boolean;
}

/** Somebody who is not there is told by silence, as in a real network: the sender’s own computer gives up asking for it. */
const SILENCE_MS = 900;

async function silence(address: string, { timeoutMs, signal }: Limits): Promise<never> {
  await wait(Math.min(timeoutMs, SILENCE_MS), undefined, { signal }).catch(() => {}); // cut off: nobody waits for it
  throw timeoutMs < SILENCE_MS
    ? new DialFailure('timeout', `${address} did not respond in ${timeoutMs / 1000} s.`)
    : new DialFailure('unreachable', `Nothing answers at ${address} in the simulated network.`);
}

/** Several networks as one: whoever has the address answers for it. */
export function joined(networks: readonly SimulatedNetwork[]): SimulatedNetwork {
  const of = (host: string): SimulatedNetwork | undefined => networks.find((one) => one.hasHost(host));
  return {
    hasHost: (host) => of(host) !== undefined,
    loopbackPort: (host, port) => of(host)?.loopbackPort(host, port),
    isDropped: (host, port) => of(host)?.isDropped?.(host, port) === true,
  };
}

/**
 * The demo's only network: planned addresses lead to loopback ports of stand-ins, anything else cannot be reached.
 * No real address is ever dialled through it.
 */
export function createSimulatedDialer(network: SimulatedNetwork): Dialer {
  return {
    resolve: async (host, port) => {
      if (!/^[\d.]+$|:/.test(host))
        throw new DialFailure('unresolved-host', `The host name ${host} does not resolve in the simulated network.`);
      return { address: host, port, note: null };
    },
    dial: async ({ address, port }, events, limits, how) => {
      if (!network.hasHost(address)) return silence(address, limits);
      if (network.isDropped?.(address, port)) {
        await wait(limits.timeoutMs, undefined, { signal: limits.signal }).catch(() => {}); // cut off: nobody waits for it
        throw new DialFailure('timeout', `${address}:${port} did not respond in ${limits.timeoutMs / 1000} s.`);
      }
      const loopbackPort = network.loopbackPort(address, port);
      if (loopbackPort === undefined)
        throw new DialFailure('refused', `${address}:${port} refused the connection: nothing listens there.`);
      return dialTcp('127.0.0.1', loopbackPort, events, limits, how);
    },
    openUdp: (_, onDatagram, signal) => openUdpPair('127.0.0.1', onDatagram, signal),
  };
}

export interface SimulatedNeighbours {
  discoveryPorts(): ReadonlyMap<number, string>;
  neighbours(): string;
  networks(): readonly string[];
}

/** Asks the devices of the simulated network, each at its loopback port; no multicast leaves this computer. */
export function createSimulatedFinder(network: SimulatedNeighbours): Finder {
  return {
    openDiscovery: (onAnswer) =>
      askLoopback(
        () => [...network.discoveryPorts().keys()],
        (port, chunk) => {
          const host = network.discoveryPorts().get(port);
          if (host !== undefined) onAnswer(host, chunk);
        },
      ),
    neighbours: async () => network.neighbours(),
    ownNetworks: () => network.networks(),
  };
}
