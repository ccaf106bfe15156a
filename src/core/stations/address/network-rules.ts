import type { SiteCommand } from '../../document/site-commands.ts';
import type { Mend } from '../../findings/finding.ts';
import { rulesFor } from '../../findings/rule.ts';
import type { AddressKind } from '../../net/ipv4.ts';

/** Of one network. */
export interface NetworkFacts {
  readonly name: string;
  readonly cidr: string;
  readonly isReadable: boolean;
  /** Of its first address. */
  readonly kind: AddressKind;
  readonly gatewayText: string;
  readonly gateway: 'ok' | 'unreadable' | 'gateway-outside-subnet' | 'gateway-not-host';
  readonly poolText: string;
  readonly pool: 'ok' | 'unreadable' | 'backwards' | 'outside';
  readonly poolHoldsGateway: boolean;
  /** Names of networks that have addresses in common with it. */
  readonly overlaps: readonly string[];
  /** Absent while nobody looked. */
  readonly dhcpServers: number;
}

export interface NetworkOffers {
  readonly firstAddressAsGateway: () => readonly Mend<SiteCommand>[];
}

const rule = rulesFor<NetworkFacts, NetworkOffers, SiteCommand>();

/** Whether a network is described as one can be. */
export const NETWORK_RULES = [
  rule({
    id: 'network.addresses',
    question: 'Can the addresses of a network be read?',
    source: 'RFC 4632 §3.1',
    needs: ['cidr', 'isReadable'],
    fails: (f) => !f.isReadable,
    severity: 'fix',
    title: (f) => `The addresses of ${f.name ?? 'a network'} cannot be read`,
    because: (f) => `“${f.cidr}” is no IPv4 network.`,
    do: ['Write it with its mask, such as 10.77.4.0/24.'],
    why: 'Nothing can be said of addresses of which nobody knows where they end.',
  }),
  rule({
    id: 'network.public',
    question: 'Are its addresses a house’s own?',
    source: 'RFC 1918 §3; RFC 6598 §7',
    needs: ['kind'],
    isTight: (f) => f.kind !== 'private' && f.kind !== 'loopback' && f.kind !== 'link-local',
    severity: 'fix',
    title: (f) => `${f.name ?? 'A network'} uses addresses that are not a house’s own`,
    because: (f) =>
      `${f.cidr ?? 'Its addresses'}: ${f.kind === 'public' ? 'they belong to somebody on the internet' : `they are for another use (${f.kind})`}.`,
    do: ['Take a private network: 10.x, 172.16 to 172.31, or 192.168.'],
    why: 'Whoever owns those addresses cannot be reached from the house any more, and the other way round.',
  }),
  rule({
    id: 'network.gateway',
    question: 'Can its gateway be one?',
    source: 'RFC 4632; RFC 1122 §3.3.1.1',
    needs: ['gateway', 'gatewayText'],
    asks: (f) => f.gatewayText !== undefined,
    fails: (f) => f.gateway !== 'ok',
    severity: 'fix',
    title: (f) =>
      `The gateway of ${f.name ?? 'a network'} ${f.gateway === 'gateway-outside-subnet' ? 'lies outside of it' : 'can be none'}`,
    because: (f) => `${f.gatewayText} and ${f.cidr ?? 'its addresses'}.`,
    do: ['Look at the mask: a wrong one moves the edge of the network.', 'Enter the router’s address in this network.'],
    mends: (_, offers) => offers.firstAddressAsGateway(),
    why: 'No device can send to a gateway that is not its neighbour.',
  }),
  rule({
    id: 'network.pool',
    question: 'Does its pool lie in it?',
    source: 'RFC 2131 §2.2',
    needs: ['pool', 'poolText'],
    asks: (f) => f.poolText !== undefined,
    fails: (f) => f.pool !== 'ok',
    severity: 'fix',
    title: (f) =>
      `The pool of ${f.name ?? 'a network'} ${f.pool === 'outside' ? 'reaches beyond it' : f.pool === 'backwards' ? 'ends before it begins' : 'cannot be read'}`,
    because: (f) => `${f.poolText} in ${f.cidr ?? 'its addresses'}.`,
    do: ['Enter the first and the last address that the router hands out.'],
    why: 'What is handed out beyond the network reaches nobody.',
  }),
  rule({
    id: 'network.pool-holds-gateway',
    question: 'Does the pool leave the gateway out?',
    source: 'RFC 2131 §2.2',
    needs: ['poolHoldsGateway'],
    isTight: (f) => f.poolHoldsGateway,
    severity: 'fix',
    title: (f) => `The router of ${f.name ?? 'a network'} may hand out its own address`,
    because: (f) => `${f.gatewayText ?? 'It'} lies in the pool ${f.poolText ?? ''}.`,
    do: ['Begin the pool behind it.'],
    why: 'Most routers leave it out by themselves; those that do not stop the house.',
  }),
  rule({
    id: 'network.overlap',
    question: 'Has another network addresses in common with it?',
    source: 'RFC 4632 §5.1',
    needs: ['overlaps'],
    fails: (f) => f.overlaps.length > 0,
    severity: 'fix',
    title: (f) => `${f.name ?? 'A network'} and ${f.overlaps.join(', ')} have addresses in common`,
    because: () => 'One of the masks is wrong, or a second router uses the same addresses.',
    do: ['Look at both masks. Behind a second router the addresses must be others.'],
    why: 'A router does not know into which of the two it should send.',
  }),
  rule({
    id: 'network.two-servers',
    question: 'Does one server alone hand out addresses?',
    source: 'RFC 2131 §3.1: the first answer is taken',
    needs: ['dhcpServers'],
    asks: (f) => f.dhcpServers !== undefined,
    isTight: (f) => f.dhcpServers > 1,
    severity: 'fix',
    title: (f) => `${f.dhcpServers} servers hand out addresses in ${f.name ?? 'one network'}`,
    because: () => 'A second router, or a repeater that thinks it is one, answers too.',
    do: ['Switch all of them off but one.'],
    why: 'Devices get an address of the one, and the reservation stands at the other.',
  }),
];
