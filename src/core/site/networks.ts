import { weakMapMemoize } from 'reselect';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Network } from '../document/chapters/networks/network.ts';
import type { Site } from '../document/site.ts';
import type { PlanOfNetwork } from '../net/address-plan.ts';
import { holds, parseCidr, parseIpv4 } from '../net/ipv4.ts';

/** A network with its addresses read. `plan` is `null` where they are written in a way that cannot be read. */
export interface ReadNetwork {
  readonly network: Network;
  readonly plan: PlanOfNetwork | null;
}

/** Read once for each network as it stands. */
const planOf = weakMapMemoize(({ cidr, gateway, pool }: Network): PlanOfNetwork | null => {
  const read = parseCidr(cidr);
  if (!read) return null;
  const [from, to] = [parseIpv4(pool?.from ?? ''), parseIpv4(pool?.to ?? '')];
  return {
    cidr: read,
    gateway: gateway === null ? null : parseIpv4(gateway),
    pool: from === null || to === null ? null : { from, to },
  };
});

export const readNetwork = (network: Network): ReadNetwork => ({ network, plan: planOf(network) });

/** The network that an address lies in: of several the smallest, as a router would choose it. */
export function networkAt(networks: readonly Network[], host: string): ReadNetwork | null {
  const address = parseIpv4(host.trim());
  return address === null ? null : networkHolding(networks, address);
}

/** The same of an address that is read already. */
export function networkHolding(networks: readonly Network[], address: number): ReadNetwork | null {
  let best: ReadNetwork | null = null;
  for (const network of networks) {
    const read = readNetwork(network);
    const isCloser = read.plan && read.plan.cidr.prefix > (best?.plan?.cidr.prefix ?? -1);
    if (read.plan && isCloser && holds(read.plan.cidr, address)) best = read;
  }
  return best;
}

export const networkOfCamera = ({ networks }: Pick<Site, 'networks'>, { host }: Camera): ReadNetwork | null =>
  networkAt(networks, host);

/** Whether anybody said which addresses are handed out: a pool, or that nobody hands any out. */
export const isPoolSaid = ({ pool, dhcpServers }: Network): boolean => pool !== null || dhcpServers === 0;

/** By its own address, else the one that somebody chose for it. */
export function networkOfDestination(
  { networks }: Pick<Site, 'networks'>,
  { host, networkId }: Destination,
): ReadNetwork | null {
  const chosen = networks.find(({ id }) => id === networkId);
  return networkAt(networks, host) ?? (chosen ? readNetwork(chosen) : null);
}
