import { isAddress, isSameAddress } from './same-address.ts';

/** What a device showed when the line to it was encrypted. Times are ms since 1970. */
export interface CertificateSeen {
  /** “TLSv1.3”. */
  readonly protocol: string;
  readonly subject: string;
  readonly issuer: string;
  readonly isSelfSigned: boolean;
  /** `null` where what stands there is no date. */
  readonly validFromUnixMs: number | null;
  readonly validToUnixMs: number | null;
  /** By the clock of whoever looked: what its days are told from. */
  readonly seenAtUnixMs: number;
  /** Names and addresses that it is made out to: a name that reads like an address has `DNS:` before it. */
  readonly names: readonly string[];
  /** Length of its key; `null` where it is not told. */
  readonly keyBits: number | null;
  readonly isElliptic: boolean;
  /** By which hash it was signed: “SHA-256”; `null` where that is not known. */
  readonly signatureHash: string | null;
  /** SHA-256 over it, with colons: what two people compare over the telephone. */
  readonly fingerprint: string;
}

/** More names than any device has; they are shown and compared. */
export const MOST_CERTIFICATE_NAMES = 20;

/** As `subjectAltName` has it. Source: RFC 5280 §4.2.1.6. */
export interface AlternativeName {
  readonly kind: 'dns' | 'ip';
  readonly value: string;
}

const DNS_MARK = 'DNS:';
/** An address among the names of hosts names nothing: it is told, and never taken for one. Source: RFC 9525 §3. */
export const nameSaid = ({ kind, value }: AlternativeName): string =>
  kind === 'dns' && isAddress(value) ? `${DNS_MARK}${value}` : value;

/**
 * Whether a certificate is made out to this host: a name by name, where a `*` stands for one label, an address by its value,
 * and only among the addresses. Source: RFC 9525 §6.3, §6.4.
 */
export function namesHost(names: readonly string[], host: string): boolean {
  const wanted = host.replace(/^\[|\]$/g, '').toLowerCase();
  if (isAddress(wanted)) return names.some((name) => isAddress(name) && isSameAddress(name, wanted));
  return names.some((name) => {
    const own = name.toLowerCase();
    if (!own.startsWith('*.')) return own === wanted;
    const dot = wanted.indexOf('.');
    return dot > 0 && wanted.slice(dot) === own.slice(1);
  });
}

/** “TLS 1.3, shown as “Ferry gate”, signed by itself”. */
export const sayCertificate = ({ protocol, subject, isSelfSigned, issuer }: CertificateSeen): string =>
  `${protocol.replace('v', ' ')}, shown as “${subject}”, ${isSelfSigned ? 'signed by itself' : `signed by “${issuer}”`}`;
