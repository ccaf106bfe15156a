import { sha1 } from '@noble/hashes/legacy';
import type { Credentials } from '../auth/authorization.ts';
import { base64Of, bytesOf, concatBytes } from '../base/bytes.ts';
import { escapeXml } from './envelope.ts';

// Source: OASIS Web Services Security, UsernameToken Profile 1.1 §3.1; ONVIF Core §5.12.2 (clocks).

/**
 * `Base64(SHA-1(nonce + created + password))`. The nonce is hashed as its bytes, not as the Base64 text that is sent.
 * Bytes of LKqI6G/AikKCQrN0zqZFlg==, 2010-09-16T07:50:45Z, “userpassword” → tuOSpGlFlIXsozq4HFNeeGeFLEI=.
 */
export const passwordDigest = (nonce: Uint8Array, created: string, password: string): string =>
  base64Of(sha1(concatBytes([nonce, bytesOf(created), bytesOf(password)])));

/** A moment as a token carries it: to the second, in UTC. */
export const createdAt = (unixMs: number): string => `${new Date(unixMs).toISOString().slice(0, 19)}Z`;

const WSSE = 'http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd';
const WSU = 'http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-utility-1.0.xsd';
const DIGEST_TYPE = 'http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-username-token-profile-1.0#PasswordDigest';
const NONCE_TYPE = 'http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-soap-message-security-1.0#Base64Binary';

/** The header that proves an account. `nonce` must be fresh each time: a device may remember those that it saw. */
export const usernameToken = ({ user, password }: Credentials, nonce: Uint8Array, created: string): string =>
  `<Security xmlns="${WSSE}" s:mustUnderstand="1"><UsernameToken><Username>${escapeXml(user)}</Username>` +
  `<Password Type="${DIGEST_TYPE}">${passwordDigest(nonce, created, password)}</Password>` +
  `<Nonce EncodingType="${NONCE_TYPE}">${base64Of(nonce)}</Nonce>` +
  `<Created xmlns="${WSU}">${created}</Created></UsernameToken></Security>`;
