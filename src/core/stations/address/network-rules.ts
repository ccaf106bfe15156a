import { rulesFor, tightIf } from '../../findings/rule.ts';
import type { AddressKind } from '../../net/ipv4.ts';

/** Of one network. */
export interface NetworkFacts {
  readonly name: string;
  readonly cidr: string;
  readonly isReadable: boolean;
  /** Of the whole of it: `public` where it reaches beyond what is private. */
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

const KIND_WORDS: Readonly<Record<AddressKind, string>> = {
  private: 'private',
  loopback: 'loopback',
  'link-local': 'link-local',
  'shared-cgnat': 'carrier-grade NAT',
  'ds-lite': 'DS-Lite',
  benchmarking: 'benchmarks',
  documentation: 'documentation',
  multicast: 'multicast',
  reserved: 'reserved',
  'limited-broadcast': 'broadcast',
  unspecified: 'this network',
  public: 'public',
};

const rule = rulesFor<NetworkFacts>();

/** Whether a network is described as one can be. */
export const NETWORK_RULES = [
  rule({
    id: 'network.addresses',
    question: 'Is the network’s address range valid?',
    source: 'RFC 4632 §3.1',
    needs: ['cidr', 'isReadable'],
    fails: (f) => !f.isReadable,
    severity: 'fix',
    title: (f) => `Address range of ${f.name ?? 'a network'} not valid`,
    because: (f) => `“${f.cidr}” is not an IPv4 network.`,
    do: ['Enter it with its prefix length, such as 10.77.4.0/24.'],
    why: 'Without the mask nobody can tell where a network ends.',
  }),
  rule({
    id: 'network.public',
    question: 'Are its addresses private?',
    source: 'RFC 1918 §3; RFC 6598 §7',
    needs: ['kind'],
    isTight: (f) => f.kind !== 'private' && f.kind !== 'loopback' && f.kind !== 'link-local',
    severity: 'fix',
    title: (f) => `Addresses of ${f.name ?? 'A network'} not private`,
    because: (f) =>
      `${f.cidr ?? 'Its address range'}: ${f.kind === 'public' ? 'they belong to somebody on the internet' : `they are for another use (${KIND_WORDS[f.kind]})`}.`,
    do: ['Use a private network: 10.x, 172.16 to 172.31, or 192.168.'],
    why: 'The real owner of these addresses cannot be reached from the house, and the other way round.',
  }),
  rule({
    id: 'network.gateway',
    question: 'Is its gateway valid?',
    source: 'RFC 4632; RFC 1122 §3.3.1.1',
    needs: ['gateway', 'gatewayText'],
    asks: (f) => f.gatewayText !== undefined,
    fails: (f) => f.gateway !== 'ok',
    severity: 'fix',
    title: (f) =>
      `Gateway of ${f.name ?? 'a network'} ${f.gateway === 'gateway-outside-subnet' ? 'outside the network' : 'not a host address'}`,
    because: (f) => `${f.gatewayText} and ${f.cidr ?? 'its address range'}.`,
    do: ['Check the mask: a wrong one moves the edge of the network.', 'Enter the router’s address in this network.'],
    why: 'No device can send to a gateway outside its own network.',
  }),
  rule({
    id: 'network.dhcp-range',
    question: 'Does its DHCP range lie inside the network?',
    source: 'RFC 2131 §2.2',
    needs: ['pool', 'poolText'],
    asks: (f) => f.poolText !== undefined,
    fails: (f) => f.pool !== 'ok',
    severity: 'fix',
    title: (f) =>
      `DHCP range of ${f.name ?? 'a network'} ${f.pool === 'outside' ? 'outside the network' : f.pool === 'backwards' ? 'ends before it begins' : 'not valid'}`,
    because: (f) => `${f.poolText} in ${f.cidr ?? 'its address range'}.`,
    do: ['Enter the first and the last address of the router’s DHCP range.'],
    why: 'An address assigned outside the network works for no device.',
  }),
  rule({
    id: 'network.dhcp-range-holds-gateway',
    question: 'Does the DHCP range exclude the gateway?',
    source: 'RFC 2131 §2.2',
    needs: ['poolText'],
    asks: (f) => f.poolText !== undefined,
    judge: (f) => (f.poolHoldsGateway === undefined ? 'unknown' : tightIf(f.poolHoldsGateway)),
    when: {
      unknown: {
        severity: 'note',
        title: (f) => `Gateway of ${f.name ?? 'a network'} not known`,
        because: (f) => `Whether the DHCP range ${f.poolText} contains the router’s own address cannot be told.`,
        do: ['Enter the gateway of this network.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `DHCP range of ${f.name ?? 'a network'} contains the gateway`,
        because: (f) => `${f.gatewayText ?? 'It'} lies in the DHCP range ${f.poolText}.`,
        do: ['Start the DHCP range after the gateway.'],
      },
    },
    why: 'Most routers exclude it by themselves; with those that do not, the whole house loses its connection.',
  }),
  rule({
    id: 'network.overlap',
    question: 'Does another network overlap it?',
    source: 'RFC 4632 §5.1',
    needs: ['overlaps'],
    fails: (f) => f.overlaps.length > 0,
    severity: 'fix',
    title: (f) => `${f.name ?? 'A network'} overlaps ${f.overlaps.join(', ')}`,
    because: () => 'One of the masks is wrong, or a second router uses the same addresses.',
    do: ['Check both masks. Behind a second router the addresses must be different.'],
    why: 'A router does not know to which of the two it should send.',
  }),
  rule({
    id: 'network.two-servers',
    question: 'Is there exactly one DHCP server?',
    source: 'RFC 2131 §3.1: the first answer is taken',
    needs: ['dhcpServers'],
    asks: (f) => f.dhcpServers !== undefined,
    isTight: (f) => f.dhcpServers > 1,
    severity: 'fix',
    title: (f) => `${f.dhcpServers} DHCP servers in ${f.name ?? 'one network'}`,
    because: () => 'A second router, or a repeater in router mode, answers too.',
    do: ['Switch all of them off but one.'],
    why: 'A device gets its address from one, and the reservation is on the other.',
  }),
];
