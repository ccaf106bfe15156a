import { isIP, type Socket } from 'node:net';
import { connect, type PeerCertificate, type TLSSocket } from 'node:tls';
import { clipText } from '../../core/base/clip.ts';
import { oneLine } from '../../core/base/control-signs.ts';
import { type CertificateSeen, MOST_CERTIFICATE_NAMES, nameSaid } from '../../core/net/certificate.ts';
import { signatureHashOf } from '../../core/net/certificate-signature.ts';
import type { Guarded } from '../last-guard.ts';

const MOST_CHARS = 200;
const told = (text: unknown): string => clipText(oneLine(typeof text === 'string' ? text : ''), MOST_CHARS);

const nameOf = (of: PeerCertificate['subject'] | undefined): string =>
  told(
    ['CN', 'O', 'OU']
      .map((key) => (of as Record<string, unknown> | undefined)?.[key])
      .filter((part) => typeof part === 'string' && part !== '')
      .join(', '),
  );

/** Source: RFC 5280 §4.2.1.6 (subjectAltName), as Node writes it: “DNS:a, IP Address:b”; other kinds name no host. */
const namesOf = (text: string | undefined): readonly string[] =>
  clipText(text ?? '', 20 * MOST_CHARS)
    .split(', ')
    .flatMap((part) => {
      const [, kind = '', value = ''] = /^(DNS|IP Address):(.+)$/.exec(part) ?? [];
      if (value === '') return [];
      return nameSaid({ kind: kind === 'DNS' ? 'dns' : 'ip', value: told(value) });
    })
    .slice(0, MOST_CERTIFICATE_NAMES);

const dateOf = (text: string): number | null => {
  const unixMs = Date.parse(text);
  return Number.isNaN(unixMs) ? null : unixMs;
};

/** What the other end showed, clipped; `null` where it showed none. */
function certificateOf(socket: TLSSocket): CertificateSeen | null {
  const seen = socket.getPeerCertificate(false);
  if (!seen || Object.keys(seen).length === 0) return null;
  const subject = nameOf(seen.subject);
  const issuer = nameOf(seen.issuer);
  return {
    protocol: told(socket.getProtocol() ?? ''),
    subject,
    issuer,
    isSelfSigned: JSON.stringify(seen.subject) === JSON.stringify(seen.issuer),
    validFromUnixMs: dateOf(seen.valid_from),
    validToUnixMs: dateOf(seen.valid_to),
    seenAtUnixMs: Date.now(),
    names: namesOf(seen.subjectaltname),
    keyBits: typeof seen.bits === 'number' ? seen.bits : null,
    isElliptic: typeof seen.asn1Curve === 'string' || typeof seen.nistCurve === 'string',
    signatureHash: signatureHashOf(seen.raw),
    fingerprint: told(seen.fingerprint256),
  };
}

/** Old cameras know nothing newer; it is judged, not refused. */
const OLDEST = 'TLSv1';

/**
 * Puts TLS on an open connection. Certificates are taken as they are: of a camera they are nearly always signed by itself, and
 * what they say is told and judged. @param ready with the line and what was shown; @param failed why there is none
 */
export function secure(
  socket: Socket,
  host: string,
  guarded: Guarded,
  ready: (line: TLSSocket, certificate: CertificateSeen | null) => void,
  failed: (code: string) => void,
): void {
  const line = connect({
    socket,
    rejectUnauthorized: false,
    minVersion: OLDEST,
    // what old cameras offer is below what is taken unasked
    ciphers: 'DEFAULT:@SECLEVEL=0',
    ...(isIP(host) === 0 ? { servername: host } : {}),
  });
  line.on(
    'error',
    guarded((error: NodeJS.ErrnoException) => failed(error.code ?? '')),
  );
  line.once(
    'secureConnect',
    guarded(() => ready(line, certificateOf(line))),
  );
}
