import { type Handlers, itemOf, put, sayValue, without, words } from '../../command-parts.ts';
import { networkSubject } from '../../subject.ts';
import type { Network } from './network.ts';

export type NetworkCommand =
  | { readonly kind: 'putNetwork'; readonly network: Network }
  /** What may pass to and from it goes with it; destinations in it are in none then. */
  | { readonly kind: 'removeNetwork'; readonly networkId: string };

const refsOf = ({ cidr, gateway, pool, ntp }: Network): Record<string, string | undefined> => ({
  addresses: cidr,
  gateway: sayValue(gateway),
  'DHCP range': pool ? `${pool.from} to ${pool.to}` : 'none',
  'time server': ntp ?? undefined,
});

export const NETWORK_COMMANDS: Handlers<NetworkCommand> = {
  putNetwork: (site, { network }) => {
    const before = site.networks.find(({ id }) => id === network.id);
    const isPermitted = network.permit !== '' && network.permit !== before?.permit;
    const text = isPermitted
      ? `${network.name}: ${network.permit} permits scanning`
      : `${network.name} ${before ? 'changed' : 'added'}`;
    return {
      site: { ...site, networks: put(site.networks, network) },
      log: words('address', networkSubject(network.id), text, refsOf(network)),
    };
  },
  removeNetwork: (site, { networkId }) => {
    const { name } = itemOf(site.networks, networkId, 'network');
    const subject = networkSubject(networkId);
    return {
      site: {
        ...site,
        networks: without(site.networks, networkId),
        destinations: site.destinations.map((one) => (one.networkId === networkId ? { ...one, networkId: null } : one)),
        reach: { ...site.reach, rows: site.reach.rows.filter(({ from, to }) => from !== subject && to !== subject) },
      },
      log: words('address', 'site', `${name} removed`),
    };
  },
};
