import type { Network } from '../../document/chapters/networks/network.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { Finding, Mend } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, mendsOf, type Row } from '../../findings/rule.ts';
import { gatewayIssue, isInPool } from '../../net/address-plan.ts';
import { classify, firstHostOf, isHostOf, overlaps, sayIpv4 } from '../../net/ipv4.ts';
import { readNetwork } from '../../site/networks.ts';
import type { SiteView } from '../../site/site-view.ts';
import { NETWORK_RULES, type NetworkFacts } from './network-rules.ts';

const sayPool = ({ pool }: Network): string | undefined => (pool ? `${pool.from} to ${pool.to}` : undefined);

/** Everything that is asked of one network. */
export function networkFacts(network: Network, all: readonly Network[]): Facts<NetworkFacts> {
  const { plan } = readNetwork(network);
  const common = { name: network.name, cidr: network.cidr, dhcpServers: network.dhcpServers ?? undefined };
  if (!plan) return { ...common, isReadable: false };
  const { cidr, gateway, pool } = plan;
  const others = all.filter(({ id }) => id !== network.id);
  return {
    ...common,
    isReadable: true,
    kind: classify(cidr.network),
    gatewayText: network.gateway ?? undefined,
    gateway: gateway === null ? 'unreadable' : (gatewayIssue(gateway, cidr) ?? 'ok'),
    poolText: sayPool(network),
    pool: !pool
      ? 'unreadable'
      : pool.from > pool.to
        ? 'backwards'
        : isHostOf(cidr, pool.from) && isHostOf(cidr, pool.to)
          ? 'ok'
          : 'outside',
    poolHoldsGateway: gateway !== null && isInPool(pool, gateway),
    overlaps: others.flatMap((other) => {
      const { plan: theirs } = readNetwork(other);
      return theirs && overlaps(cidr, theirs.cidr) ? other.name : [];
    }),
  };
}

/** A finding of a network itself, which stands whether a camera is in it or not. */
export interface NetworkFinding {
  readonly networkId: string;
  readonly finding: Finding;
  readonly mends: readonly Mend<SiteCommand>[];
}

const offersOf = (network: Network) => ({
  firstAddressAsGateway: (): readonly Mend<SiteCommand>[] => {
    const { plan } = readNetwork(network);
    if (!plan) return [];
    const gateway = sayIpv4(firstHostOf(plan.cidr));
    return [
      { text: `Use ${gateway} as its gateway`, command: { kind: 'putNetwork', network: { ...network, gateway } } },
    ];
  },
});

export const networkFindings = (networks: readonly Network[]): readonly NetworkFinding[] =>
  networks.flatMap((network) => {
    const facts = networkFacts(network, networks);
    return findingsOf(judgeRows(NETWORK_RULES, facts)).map((finding) => ({
      networkId: network.id,
      finding,
      mends: mendsOf(NETWORK_RULES, finding.rule, facts, offersOf(network)),
    }));
  });

export const mendsOfNetwork = (network: Network, all: readonly Network[], rule: string): readonly Mend<SiteCommand>[] =>
  mendsOf(NETWORK_RULES, rule, networkFacts(network, all), offersOf(network));

/** Rows of each network, judged once for a document: all cameras of it have the same. */
export const rowsOfNetworks = ({ site }: SiteView): ReadonlyMap<string, readonly Row[]> =>
  new Map(site.networks.map((network) => [network.id, judgeRows(NETWORK_RULES, networkFacts(network, site.networks))]));
