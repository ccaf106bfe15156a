import {
  broadcastOf,
  type Cidr,
  firstHostOf,
  lastHostOf,
  parseIpv4,
  sayIpv4,
  sizeOfPrefix,
  usableOf,
} from '../net/ipv4.ts';

const BITS = 32;
const ALL = 2 ** BITS;

/** Everything about a block, in text. Source: RFC 4632, RFC 3021. */
export function cidrInfo(cidr: Cidr) {
  const broadcast = broadcastOf(cidr);
  const total = sizeOfPrefix(cidr.prefix);
  return {
    network: sayIpv4(cidr.network),
    broadcast: broadcast === null ? null : sayIpv4(broadcast),
    firstHost: sayIpv4(firstHostOf(cidr)),
    lastHost: sayIpv4(lastHostOf(cidr)),
    usable: usableOf(cidr),
    total,
    mask: sayIpv4(ALL - total),
    wildcard: sayIpv4(total - 1),
  };
}

/** `255.255.255.0` → 24; `null` when it is no mask: ones first, then zeros. Source: RFC 4632 §3.1. */
export function prefixOfMask(mask: string): number | null {
  const value = parseIpv4(mask);
  if (value === null) return null;
  const prefix = Array.from({ length: BITS + 1 }, (_, bits) => bits).find((bits) => ALL - sizeOfPrefix(bits) === value);
  return prefix ?? null;
}
