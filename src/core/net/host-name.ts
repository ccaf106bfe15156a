import { parseMac } from './mac.ts';

/** Longest label of a host name. Source: RFC 1035 §2.3.4. */
const LONGEST = 63;

/**
 * What a router reads as something else where a name may stand: a number, a lease time, a word of its settings, a MAC address.
 * Source: dnsmasq(8), --dhcp-host.
 */
const isReadOtherwise = (name: string): boolean =>
  /^\d+[a-z]?$/.test(name) || name === 'infinite' || name === 'ignore' || parseMac(name) !== null;

/** “Sluice rail” as a host name: letters, digits and dashes, not at its ends. Source: RFC 952, RFC 1123 §2.1. */
export function hostNameOf(name: string): string {
  const plain = dashed(name);
  return isReadOtherwise(plain) ? `camera-${plain}` : plain;
}

const dashed = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, LONGEST + 1)
    .replace(/^-|-$/g, '')
    .slice(0, LONGEST) || 'camera';
