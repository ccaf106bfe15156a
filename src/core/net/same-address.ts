import ipaddr from 'ipaddr.js';

/** One spelling of an IP address: no zone, IPv4 inside IPv6 as IPv4; text that is none stays. */
function plain(text: string): string {
  const [bare = ''] = text.split('%', 1);
  return ipaddr.isValid(bare) ? ipaddr.process(bare).toNormalizedString() : text;
}

export const isAddress = (text: string): boolean => ipaddr.isValid(text.split('%', 1)[0] ?? '');

/** Whether two texts name one address: `fe80::1%eth0` and `fe80:0:0:0:0:0:0:1` do. Source: RFC 5952 §1, RFC 4007 §11. */
export const isSameAddress = (a: string, b: string): boolean => a === b || plain(a) === plain(b);
