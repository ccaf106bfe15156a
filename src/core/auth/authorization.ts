import { md5 } from '@noble/hashes/legacy';
import { sha256, sha512_256 } from '@noble/hashes/sha2';
import { base64Of, bytesOf, hexOf } from '../base/bytes.ts';
import type { ChosenChallenge, DigestAlgorithm, DigestQop } from './challenge.ts';

export interface Credentials {
  readonly user: string;
  readonly password: string;
}

interface DigestInput extends Credentials {
  readonly realm: string;
  readonly nonce: string;
  readonly method: string;
  /** Exactly the URI of the request line. */
  readonly uri: string;
  readonly algorithm: DigestAlgorithm;
  readonly qop: DigestQop | null;
  /** Nonce count, 8 hex digits; needed with qop. */
  readonly nc: string;
  readonly cnonce: string;
  readonly body: string;
}

type Hash = (text: string) => string;
const hex =
  (hash: (bytes: Uint8Array) => Uint8Array): Hash =>
  (text) =>
    hexOf(hash(bytesOf(text)));
const HASHES: Readonly<Record<string, Hash>> = {
  MD5: hex(md5),
  'SHA-256': hex(sha256),
  'SHA-512-256': hex(sha512_256),
};

/**
 * The three hashes of Digest access authentication.
 * `HA1 = H(user:realm:password)`, with -sess `H(HA1:nonce:cnonce)`; `HA2 = H(method:uri)`, with auth-int
 * `H(method:uri:H(body))`; `response = H(HA1:nonce:nc:cnonce:qop:HA2)`, without qop `H(HA1:nonce:HA2)`.
 * The password is hashed as it is, never percent-encoded.
 * Source: RFC 7616 §3.4.1–3.4.3; RFC 2069 §2.1.2 (no qop); example of RFC 2617 §3.5 → 6629fae49393a05397450978507c4ef1.
 * @throws RangeError for an algorithm that RFC 7616 does not name: a challenge with one is not chosen
 */
export function digestResponse(input: DigestInput): { ha1: string; ha2: string; response: string } {
  const { realm, nonce, method, uri, qop, nc, cnonce } = input;
  const session = input.algorithm.endsWith('-SESS');
  const hash = HASHES[input.algorithm.replace('-SESS', '')];
  if (!hash) throw new RangeError(`algorithm: expected one of RFC 7616, got ${input.algorithm}`);
  const account = hash(`${input.user}:${realm}:${input.password}`);
  const ha1 = session ? hash(`${account}:${nonce}:${cnonce}`) : account;
  const ha2 = hash(qop === 'auth-int' ? `${method}:${uri}:${hash(input.body)}` : `${method}:${uri}`);
  const response = hash(qop === null ? `${ha1}:${nonce}:${ha2}` : `${ha1}:${nonce}:${nc}:${cnonce}:${qop}:${ha2}`);
  return { ha1, ha2, response };
}

/** Authorization value of HTTP Basic: Base64 of `user:password` in UTF-8. Source: RFC 7617 §2. */
export const basicAuthorization = ({ user, password }: Credentials): string =>
  `Basic ${base64Of(bytesOf(`${user}:${password}`))}`;

const quote = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`;

/**
 * Authorization value that answers a challenge for one request.
 * @param useCount how often this nonce was used, counting this request (1, 2 …)
 * Source: RFC 7616 §3.4 (which values are quoted), RFC 7617.
 */
export function authorizationFor(
  challenge: ChosenChallenge,
  credentials: Credentials,
  request: { readonly method: string; readonly uri: string; readonly useCount: number; readonly cnonce: string },
): string {
  if (challenge.scheme === 'basic') return basicAuthorization(credentials);
  const { realm, nonce, qop, opaque, algorithm } = challenge;
  const nc = request.useCount.toString(16).padStart(8, '0');
  const { response } = digestResponse({ ...challenge, ...credentials, ...request, nc, body: '' });
  const fields = [
    `username=${quote(credentials.user)}`,
    `realm=${quote(realm)}`,
    `nonce=${quote(nonce)}`,
    `uri=${quote(request.uri)}`,
    `response="${response}"`,
  ];
  // Old firmware rejects fields that it did not ask for, so the default algorithm is left unsaid.
  if (algorithm !== 'MD5') fields.push(`algorithm=${algorithm.replace('-SESS', '-sess')}`);
  if (opaque !== null) fields.push(`opaque=${quote(opaque)}`);
  if (qop !== null) fields.push(`qop=${qop}`, `nc=${nc}`);
  if (qop !== null || algorithm.endsWith('-SESS')) fields.push(`cnonce=${quote(request.cnonce)}`);
  return `Digest ${fields.join(', ')}`;
}

/** An Authorization value that may be shown: what proves the password is masked, the rest kept for diagnosis. */
export function redactAuthorization(value: string): string {
  if (/^basic\b/i.test(value)) return 'Basic ***';
  return value.replace(/\bresponse="[^"]*"/i, 'response="***"');
}
