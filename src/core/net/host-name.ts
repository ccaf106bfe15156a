/** Longest label of a host name. Source: RFC 1035 §2.3.4. */
const LONGEST = 63;

/** “Sluice rail” as a host name: letters, digits and dashes, not at its ends. Source: RFC 952, RFC 1123 §2.1. */
export const hostNameOf = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, LONGEST + 1)
    .replace(/^-|-$/g, '')
    .slice(0, LONGEST) || 'camera';
