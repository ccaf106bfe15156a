import { sayMany } from '../base/say.ts';
import { type AnyRule, type Facts, rulesFor, tightIf } from '../findings/rule.ts';
import { type CertificateSeen, namesHost } from './certificate.ts';

/** What the rules about a certificate may ask for. */
export interface CertificateFacts {
  readonly tlsSubject: string;
  readonly tlsProtocol: string;
  readonly tlsSelfSigned: boolean;
  readonly tlsDaysLeft: number;
  readonly tlsDaysUntil: number;
  readonly tlsNamesHost: boolean;
  readonly tlsShortKey: boolean;
  readonly tlsWeakHash: string;
  readonly tlsFingerprint: string;
}

const DAY_MS = 86_400_000;
/** Below these lengths keys are no longer held to be safe. Source: NIST SP 800-57 part 1, Table 2 (112 bits of strength). */
const LEAST_BITS = { rsa: 2048, elliptic: 224 } as const;

/** Signatures that can be forged, or that clients refuse. Source: RFC 9155 §2 (MD5, SHA-1), NIST SP 800-131A rev. 2, Table 2. */
const WEAK_HASHES: ReadonlySet<string> = new Set(['MD5', 'SHA-1']);

const daysUntil = (unixMs: number | null, { seenAtUnixMs }: CertificateSeen): number | undefined =>
  unixMs === null ? undefined : (unixMs - seenAtUnixMs) / DAY_MS;

/** @param host as it was dialled */
export const certificateFacts = (tls: CertificateSeen, host: string): Facts<CertificateFacts> => ({
  tlsSubject: tls.subject,
  tlsProtocol: tls.protocol,
  tlsSelfSigned: tls.isSelfSigned,
  tlsDaysLeft: daysUntil(tls.validToUnixMs, tls),
  tlsDaysUntil: daysUntil(tls.validFromUnixMs, tls),
  tlsNamesHost: namesHost(tls.names, host),
  tlsShortKey: tls.keyBits === null ? undefined : tls.keyBits < LEAST_BITS[tls.isElliptic ? 'elliptic' : 'rsa'],
  ...(tls.signatureHash !== null && WEAK_HASHES.has(tls.signatureHash) ? { tlsWeakHash: tls.signatureHash } : {}),
  tlsFingerprint: tls.fingerprint,
});

/** Whole days: what ends in a day and a half ends in 1 day. */
const days = (count: number): string =>
  Math.abs(count) < 1 ? 'less than 1 day' : sayMany(Math.floor(Math.abs(count)), 'day');
/** A certificate that ends within this is renewed with the next visit [A]. */
const SOON_DAYS = 30;
const OLD_PROTOCOLS: ReadonlySet<string> = new Set(['TLSv1', 'TLSv1.1', 'SSLv3']);

const sayProtocol = (protocol: string): string => protocol.replace('v', ' ');

/** Most are spoken to without TLS: then there is no question. */
const isEncrypted = (f: Facts<CertificateFacts>): boolean => f.tlsSubject !== undefined;

/**
 * What a device showed when its line was encrypted. That it signed itself is the norm, and no fault.
 * @param of by what it is spoken to: the same camera may show another certificate by RTSP and by ONVIF, and each is judged
 */
export function certificateRules(of: '' | 'onvif.'): readonly AnyRule<CertificateFacts>[] {
  const rule = rulesFor<CertificateFacts>();
  const titled = (title: string): string =>
    of === '' ? title : `By ONVIF: ${title.charAt(0).toLowerCase()}${title.slice(1)}`;
  const by = of === '' ? '' : ' (by ONVIF)';
  return [
    rule({
      id: `${of}tls.expired`,
      question: `Is its certificate in force${by}?`,
      asks: isEncrypted,
      source: 'RFC 5280 §4.1.2.5 (validity); 30 days ahead [A]',
      needs: ['tlsDaysLeft', 'tlsSubject'],
      judge: (f) => (f.tlsDaysLeft < 0 ? 'will-not-work' : tightIf(f.tlsDaysLeft < SOON_DAYS)),
      when: {
        'will-not-work': {
          severity: 'fix',
          title: (f) => titled(`Certificate expired ${days(f.tlsDaysLeft)} ago`),
          because: (f) =>
            `“${f.tlsSubject}” is no longer valid. Clear Tap carries on; most destinations will refuse it.`,
          do: [
            'Create a new certificate in the camera.',
            'Set the camera’s clock first: the certificate is dated by it.',
          ],
        },
        tight: {
          severity: 'caution',
          title: (f) => titled(`Certificate expires in ${days(f.tlsDaysLeft)}`),
          because: (f) => `“${f.tlsSubject}” is valid until then.`,
          do: ['Create a new certificate in the camera during this visit.'],
        },
      },
      why: 'A destination that checks certificates loses the stream on the day the certificate expires.',
    }),
    rule({
      id: `${of}tls.not-yet-valid`,
      question: `Is its certificate valid already${by}?`,
      asks: isEncrypted,
      source: 'RFC 5280 §4.1.2.5 (validity)',
      needs: ['tlsDaysUntil', 'tlsSubject'],
      fails: (f) => f.tlsDaysUntil > 0,
      severity: 'fix',
      title: () => titled('Certificate not valid yet'),
      because: (f) =>
        `“${f.tlsSubject}” is valid only in ${days(f.tlsDaysUntil)}: the camera’s clock may have been ahead when it was made, or this computer’s clock is behind.`,
      do: ['Check both clocks, then create the certificate again.'],
      why: 'A destination that checks certificates refuses it until then.',
    }),
    rule({
      id: `${of}tls.self-signed`,
      question: `Is its certificate signed by a known authority${by}?`,
      asks: isEncrypted,
      source: 'RFC 5280 §3.2: a self-signed certificate is vouched for by the device alone',
      needs: ['tlsSelfSigned', 'tlsFingerprint'],
      isTight: (f) => f.tlsSelfSigned,
      severity: 'note',
      title: () => titled('Self-signed certificate'),
      because: (f) => `The certificate is signed by itself, as on most cameras: SHA-256 ${f.tlsFingerprint}.`,
      do: [
        'Compare the fingerprint once with the one on the camera’s own page.',
        'Let each destination accept exactly this certificate, if it can.',
      ],
      why: 'An eavesdropper reads nothing, but whoever sits between the two can show a certificate of their own: only the fingerprint tells them apart.',
    }),
    rule({
      id: `${of}tls.host-name`,
      question: `Is its certificate made out to its address${by}?`,
      asks: isEncrypted,
      source: 'RFC 9525 §6 (names of a service)',
      needs: ['tlsNamesHost', 'tlsSubject'],
      isTight: (f) => !f.tlsNamesHost,
      severity: 'note',
      title: () => titled('Host name mismatch'),
      because: (f) => `“${f.tlsSubject}” does not name the address that was dialled.`,
      do: ['Where a destination requires it, create a certificate in the camera that names its address.'],
      why: 'A destination that checks names refuses it; one that goes by the fingerprint does not.',
    }),
    rule({
      id: `${of}tls.old`,
      question: `Are its TLS version, key and signature up to date${by}?`,
      asks: isEncrypted,
      source: 'RFC 8996 (TLS 1.0 and 1.1 are not to be used); NIST SP 800-57 part 1, Table 2 (keys)',
      needs: ['tlsProtocol'],
      isTight: (f) => OLD_PROTOCOLS.has(f.tlsProtocol) || f.tlsShortKey === true || f.tlsWeakHash !== undefined,
      severity: 'fix',
      title: (f) => {
        if (OLD_PROTOCOLS.has(f.tlsProtocol)) return titled(`Outdated TLS: ${sayProtocol(f.tlsProtocol)}`);
        return titled(f.tlsShortKey ? 'Weak certificate key' : `Weak certificate signature: ${f.tlsWeakHash ?? ''}`);
      },
      because: (f) =>
        [
          ...(OLD_PROTOCOLS.has(f.tlsProtocol)
            ? [`It speaks ${sayProtocol(f.tlsProtocol)}, which newer programs refuse.`]
            : []),
          ...(f.tlsShortKey ? ['Its key is shorter than what is considered safe.'] : []),
          ...(f.tlsWeakHash === undefined ? [] : [`It is signed by ${f.tlsWeakHash}, which many programs refuse.`]),
        ].join(' '),
      do: [
        'Update the camera’s firmware, then create a new certificate in it.',
        'Keep it on a network of its own until then.',
      ],
      why: 'The next update of a destination may refuse what it takes today.',
    }),
  ];
}
