import type { Network } from '../../document/chapters/networks/network.ts';
import type { Finding } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, type Row } from '../../findings/rule.ts';
import { gatewayIssue, isInPool } from '../../net/address-plan.ts';
import { classifyBlock, isHostOf, overlaps } from '../../net/ipv4.ts';
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
    kind: classifyBlock(cidr),
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
    // where the gateway is not known, whether the range holds it is not known either
    poolHoldsGateway: gateway === null ? undefined : isInPool(pool, gateway),
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
}

export const networkFindings = (networks: readonly Network[]): readonly NetworkFinding[] =>
  networks.flatMap((network) => {
    const facts = networkFacts(network, networks);
    return findingsOf(judgeRows(NETWORK_RULES, facts)).map((finding) => ({ networkId: network.id, finding }));
  });

/** Rows of each network, judged once for a document: all cameras of it have the same. */
export const rowsOfNetworks = ({ site }: SiteView): ReadonlyMap<string, readonly Row[]> =>
  new Map(site.networks.map((network) => [network.id, judgeRows(NETWORK_RULES, networkFacts(network, site.networks))]));
