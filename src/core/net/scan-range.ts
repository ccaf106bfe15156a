import ipaddr from 'ipaddr.js';
import { type Fault, fault } from '../base/fault.ts';
import { err, ok, type Result } from '../base/result.ts';
import { classify, firstHostOf, lastHostOf, lastOf, parseCidr, parseIpv4, sayIpv4 } from './ipv4.ts';

/** Addresses that are looked at, in their order. */
export interface ScanRange {
  readonly from: number;
  readonly to: number;
}

export type RangeFaultCode =
  | 'range.empty'
  | 'range.ipv6'
  | 'range.notation'
  | 'range.not-an-address'
  | 'range.backwards'
  | 'range.too-large'
  | 'range.not-private';

/** A /22 without its two ends: more is no house, and no longer gentle. */
export const MOST_ADDRESSES = 1022;
const LONGEST = 64;

export const countOf = ({ from, to }: ScanRange): number => to - from + 1;
export const sayRange = ({ from, to }: ScanRange): string =>
  from === to ? sayIpv4(from) : `${sayIpv4(from)} to ${sayIpv4(to)}`;

const no = (code: RangeFaultCode, message: string) => err(fault(code, message));

/** Why a text is no plain address, where somebody meant one. */
function noAddress(text: string): Result<never, Fault<RangeFaultCode>> {
  if (text.includes(':') && ipaddr.IPv6.isValid(text.split('/')[0] ?? ''))
    return no('range.ipv6', 'That is an IPv6 network: too large to scan. Cameras there are found by WS-Discovery.');
  // written in another base, or as one number: programs read such a text differently
  const [address = ''] = text.split(/[/-]/);
  if (parseIpv4(address) === null && ipaddr.IPv4.isValid(address))
    return no(
      'range.notation',
      'Written in octal, in hexadecimal or in fewer than four parts: programs read that differently. Write four plain decimal numbers, without leading zeros.',
    );
  return no('range.not-an-address', 'Expected a network such as 10.77.4.0/24, or from and to such as 10.77.4.10-99.');
}

/** The end of `10.77.4.10-99`: an address, or its last octet alone. */
function endOf(start: string, end: string): number | null {
  return /^\d{1,3}$/.test(end) ? parseIpv4(`${start.slice(0, start.lastIndexOf('.'))}.${Number(end)}`) : parseIpv4(end);
}

/**
 * A range as people write it: `10.77.4.0/24`, `10.77.4.10-99`, `10.77.4.10-10.77.5.20`, one address. Only addresses that
 * belong to a house are looked through, unless `allowPublic` says otherwise; of a network its two ends are left out.
 */
export function parseScanRange(text: string, allowPublic = false): Result<ScanRange, Fault<RangeFaultCode>> {
  const trimmed = text.length > 4 * LONGEST ? '?' : text.trim();
  if (trimmed === '') return no('range.empty', 'Enter which addresses to scan, such as 10.77.4.0/24.');
  if (trimmed.length > LONGEST) return noAddress('?');
  const [start = '', end, ...more] = trimmed.split('-').map((part) => part.trim());
  if (more.length > 0) return noAddress('?');
  let range: ScanRange;
  if (trimmed.includes('/')) {
    const cidr = parseCidr(trimmed);
    if (!cidr) return noAddress(trimmed);
    range = { from: firstHostOf(cidr), to: lastHostOf(cidr) };
  } else {
    const from = parseIpv4(start);
    const to = end === undefined ? from : endOf(start, end);
    if (from === null) return noAddress(start);
    if (to === null) return noAddress(end ?? '');
    range = { from, to };
  }
  if (range.to < range.from) return no('range.backwards', 'The range ends before it begins.');
  if (countOf(range) > MOST_ADDRESSES)
    return no(
      'range.too-large',
      `${countOf(range)} addresses are more than a scan takes (${MOST_ADDRESSES}, a /22). Scan one part after the other.`,
    );
  const kinds = new Set([classify(range.from), classify(range.to)]);
  for (const kind of kinds)
    if (!['private', 'loopback', 'link-local', 'shared-cgnat'].includes(kind) && !(allowPublic && kind === 'public'))
      return no(
        'range.not-private',
        `These addresses are ${kind === 'public' ? 'on the internet' : `for another use (${kind})`}, not in a house: they are not scanned.`,
      );
  return ok(range);
}

/** Whether a range lies within a network, both of its ends. */
export function liesWithin({ from, to }: ScanRange, cidr: string): boolean {
  const network = parseCidr(cidr);
  if (!network) return false;
  return from >= network.network && to <= lastOf(network);
}
