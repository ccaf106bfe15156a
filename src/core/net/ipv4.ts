const BITS = 32;

const FOUR_OCTETS = /^(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})$/;

/**
 * An IPv4 address as a number of 32 bits; `null` when the text is none. Four decimal octets, and nothing else: `010.1.1.1` is
 * octal to some and decimal to others, and neither is guessed at. Read here and not by a library: every address of a site is
 * read at every edit, and a number needs no object. A test holds it to a library's strict reading.
 * Source: RFC 3986 §3.2.2 (dec-octet). 10.20.30.40 → 169090600.
 */
export function parseIpv4(text: string): number | null {
  const octets = FOUR_OCTETS.exec(text);
  if (!octets) return null;
  let address = 0;
  for (let at = 1; at <= 4; at++) {
    const octet = Number(octets[at]);
    if (octet > 255) return null;
    address = address * 256 + octet;
  }
  return address;
}

/** Its dotted text. */
export const sayIpv4 = (address: number): string =>
  [24, 16, 8, 0].map((shift) => Math.floor(address / 2 ** shift) % 256).join('.');

/** A block of addresses: the network and how many of its bits are fixed. */
export interface Cidr {
  /** Its first address. */
  readonly network: number;
  readonly prefix: number;
}

export const sizeOfPrefix = (prefix: number): number => 2 ** (BITS - prefix);
/** Its first address, by bits: they are 32, and signed to nobody. */
export const networkOf = (address: number, prefix: number): number =>
  prefix === 0 ? 0 : (address & (-1 << (BITS - prefix))) >>> 0;
export const lastOf = ({ network, prefix }: Cidr): number => network + sizeOfPrefix(prefix) - 1;

/** `10.77.4.0/24`, by any address of it; `null` when it is none. Source: RFC 4632 §3.1. */
export function parseCidr(text: string): Cidr | null {
  const [address = '', bits = '', ...more] = text.trim().split('/');
  const value = parseIpv4(address);
  const prefix = /^\d{1,2}$/.test(bits) ? Number(bits) : -1;
  if (value === null || more.length > 0 || prefix < 0 || prefix > BITS) return null;
  return { network: networkOf(value, prefix), prefix };
}
export const sayCidr = ({ network, prefix }: Cidr): string => `${sayIpv4(network)}/${prefix}`;

export const holds = (cidr: Cidr, address: number): boolean => networkOf(address, cidr.prefix) === cidr.network;

/** Broadcast address; `null` where there is none: a link of two (RFC 3021) and a single host have none. */
export const broadcastOf = (cidr: Cidr): number | null => (cidr.prefix >= 31 ? null : lastOf(cidr));
export const firstHostOf = ({ network, prefix }: Cidr): number => (prefix >= 31 ? network : network + 1);
export const lastHostOf = (cidr: Cidr): number => (cidr.prefix >= 31 ? lastOf(cidr) : lastOf(cidr) - 1);
/** Addresses that a device can have. */
export const usableOf = (cidr: Cidr): number => lastHostOf(cidr) - firstHostOf(cidr) + 1;
export const isHostOf = (cidr: Cidr, address: number): boolean =>
  address >= firstHostOf(cidr) && address <= lastHostOf(cidr);

export const isSameSubnet = (a: number, b: number, prefix: number): boolean =>
  networkOf(a, prefix) === networkOf(b, prefix);

/** Whether two blocks have an address in common: compared at the shorter prefix. */
export const overlaps = (a: Cidr, b: Cidr): boolean => isSameSubnet(a.network, b.network, Math.min(a.prefix, b.prefix));

export type AddressKind =
  | 'private'
  | 'loopback'
  | 'link-local'
  | 'shared-cgnat'
  | 'ds-lite'
  | 'benchmarking'
  | 'documentation'
  | 'multicast'
  | 'reserved'
  | 'limited-broadcast'
  | 'unspecified'
  | 'public';

/** Ranges with a meaning of their own; the first that holds an address names it. */
const RANGES: readonly { readonly range: string; readonly kind: AddressKind; readonly source: string }[] = [
  { range: '0.0.0.0/8', kind: 'unspecified', source: 'RFC 6890 §2.2.2' },
  { range: '10.0.0.0/8', kind: 'private', source: 'RFC 1918 §3' },
  { range: '172.16.0.0/12', kind: 'private', source: 'RFC 1918 §3' },
  { range: '192.168.0.0/16', kind: 'private', source: 'RFC 1918 §3' },
  { range: '127.0.0.0/8', kind: 'loopback', source: 'RFC 6890 §2.2.2' },
  { range: '169.254.0.0/16', kind: 'link-local', source: 'RFC 3927 §2.1' },
  { range: '100.64.0.0/10', kind: 'shared-cgnat', source: 'RFC 6598 §7' },
  { range: '192.0.0.0/29', kind: 'ds-lite', source: 'RFC 6333 §5.7, RFC 7335 §4' },
  { range: '198.18.0.0/15', kind: 'benchmarking', source: 'RFC 2544 §C.2.2' },
  { range: '192.0.2.0/24', kind: 'documentation', source: 'RFC 5737 §3' },
  { range: '198.51.100.0/24', kind: 'documentation', source: 'RFC 5737 §3' },
  { range: '203.0.113.0/24', kind: 'documentation', source: 'RFC 5737 §3' },
  { range: '224.0.0.0/4', kind: 'multicast', source: 'RFC 5771 §3' },
  { range: '255.255.255.255/32', kind: 'limited-broadcast', source: 'RFC 919 §7' },
  { range: '240.0.0.0/4', kind: 'reserved', source: 'RFC 1112 §4' },
];
const KNOWN_RANGES = RANGES.flatMap(({ range, kind }) => {
  const cidr = parseCidr(range);
  return cidr ? [{ cidr, kind }] : [];
});

/** What the addresses of a block are for, where that is one thing; a block that reaches beyond is public in part. */
export const classifyBlock = (block: Cidr): AddressKind =>
  KNOWN_RANGES.find(({ cidr }) => cidr.prefix <= block.prefix && holds(cidr, block.network))?.kind ?? 'public';

/** What an address is for. Source: the ranges above; what lies in none is public. */
export const classify = (address: number): AddressKind =>
  KNOWN_RANGES.find(({ cidr }) => holds(cidr, address))?.kind ?? 'public';
