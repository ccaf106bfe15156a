/** Object identifiers of signatures, as their DER content in hex. Source: RFC 8017 §A.2.4, RFC 5758 §3.2, RFC 3279 §2.2, RFC 8410 §3. */
const HASHES: Readonly<Record<string, string>> = {
  '2a864886f70d010104': 'MD5',
  '2a864886f70d010105': 'SHA-1',
  '2a864886f70d01010e': 'SHA-224',
  '2a864886f70d01010b': 'SHA-256',
  '2a864886f70d01010c': 'SHA-384',
  '2a864886f70d01010d': 'SHA-512',
  '2a8648ce3d0401': 'SHA-1',
  '2a8648ce3d040301': 'SHA-224',
  '2a8648ce3d040302': 'SHA-256',
  '2a8648ce3d040303': 'SHA-384',
  '2a8648ce3d040304': 'SHA-512',
  '2a8648ce380403': 'SHA-1',
  '2b6570': 'Ed25519',
};
const SEQUENCE = 0x30;
const OBJECT_IDENTIFIER = 0x06;

interface Element {
  readonly tag: number;
  /** Where its content begins and ends. */
  readonly from: number;
  readonly to: number;
}

/** One element of DER at `at`; `null` where it is cut off or of a length that none has. Source: ITU-T X.690 §8.1. */
function elementAt(der: Uint8Array, at: number, end: number): Element | null {
  const [tag, first] = [der[at], der[at + 1]];
  if (tag === undefined || first === undefined) return null;
  const lengthBytes = first < 0x80 ? 0 : first & 0x7f;
  if (first === 0x80 || lengthBytes > 3) return null;
  let length = lengthBytes === 0 ? first : 0;
  for (let byte = 0; byte < lengthBytes; byte++) length = length * 256 + (der[at + 2 + byte] ?? Number.NaN);
  const from = at + 2 + lengthBytes;
  const to = from + length;
  return Number.isNaN(to) || to > end ? null : { tag, from, to };
}

/**
 * By which hash a certificate was signed: “SHA-256”; `null` where that is not known here. It stands behind what is signed,
 * outside of it. @param der the certificate @see RFC 5280 §4.1.1.2 (signatureAlgorithm)
 */
export function signatureHashOf(der: Uint8Array): string | null {
  const whole = elementAt(der, 0, der.length);
  if (whole?.tag !== SEQUENCE) return null;
  const signed = elementAt(der, whole.from, whole.to);
  const algorithm = signed && elementAt(der, signed.to, whole.to);
  if (signed?.tag !== SEQUENCE || algorithm?.tag !== SEQUENCE) return null;
  const id = elementAt(der, algorithm.from, algorithm.to);
  if (id?.tag !== OBJECT_IDENTIFIER) return null;
  const hex = [...der.subarray(id.from, id.to)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return HASHES[hex] ?? null;
}
