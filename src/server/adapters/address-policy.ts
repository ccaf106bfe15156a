import ipaddr from 'ipaddr.js';

/** Ranges that are dialled without asking. Source: RFC 1918, 3927, 6598, 4193, 4291; names as ipaddr.js gives them. */
const DIALLED: ReadonlySet<string> = new Set(['private', 'loopback', 'linkLocal', 'uniqueLocal', 'carrierGradeNat']);

/** Whether an address, as resolved and in strict form, may be dialled. IPv4 written inside IPv6 is judged as IPv4. */
export function mayDial(address: string, allowPublic: boolean): boolean {
  if (!ipaddr.IPv4.isValidFourPartDecimal(address) && !ipaddr.IPv6.isValid(address)) return false;
  const range = ipaddr.process(address).range();
  return DIALLED.has(range) || (allowPublic && range === 'unicast');
}
