import { wholes } from '../base/range.ts';

/** What a new secret is drawn from. Signs that no URL needs to encode, and no hand mistakes, come first. */
export const ALPHABETS = {
  clear: {
    label: 'letters and digits that cannot be confused',
    signs: 'abcdefghjkmnpqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ23456789',
  },
  small: { label: 'lower-case letters and digits, for a remote control', signs: 'abcdefghjkmnpqrstuvwxyz23456789' },
  plain: { label: 'all letters and digits', signs: 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789' },
  // RFC 3986 §2.3: unreserved, so that no URL encodes them
  unreserved: {
    label: 'letters, digits and - . _ ~',
    signs: 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-._~',
  },
} as const satisfies Readonly<Record<string, { readonly label: string; readonly signs: string }>>;
export type AlphabetName = keyof typeof ALPHABETS;
export const ALPHABET_NAMES = Object.keys(ALPHABETS) as readonly AlphabetName[]; // keys of the table above

export const SECRET_LENGTHS = wholes(8, 64, 'characters');
export const USUAL_LENGTH = 16;

/** The signs of an alphabet without those that somebody cannot take. */
export const signsFor = (name: AlphabetName, refused: string): string =>
  [...ALPHABETS[name].signs].filter((sign) => !refused.includes(sign)).join('');

/**
 * A secret of so many signs, each as likely as any other: bytes beyond the last whole multiple are passed over, since they
 * would favour the first signs.
 * @param signs at least two, at most 256, each once
 * @param bytes gives that many random bytes; core has no randomness of its own
 * @throws RangeError for fewer than two signs or more than 256
 */
export function makeSecret(signs: string, length: number, bytes: (count: number) => Uint8Array): string {
  if (signs.length < 2 || signs.length > 256)
    throw new RangeError(`characters: expected 2 to 256, got ${signs.length}`);
  const most = 256 - (256 % signs.length);
  let secret = '';
  while (secret.length < length)
    for (const byte of bytes(2 * length))
      if (byte < most && secret.length < length) secret += signs[byte % signs.length];
  return secret;
}

/** Bits of a secret that was drawn at random. 16 of 55 signs: 92.5 bit. */
export const drawnBits = (signs: number, length: number): number => length * Math.log2(signs);

/** [A] Guesses a second against a login that was overheard: MD5 on one rented machine. */
const GUESSES_PER_SECOND = 1e11;
const HOUR_S = 3600;
const YEAR_S = 365.25 * 24 * HOUR_S;

/** Bits of which half are tried in such a time: one scale for findings and for the bench. */
const bitsFor = (seconds: number): number => Math.log2(2 * GUESSES_PER_SECOND * seconds);
/** Below this it is guessed within an hour: 49.4 bit. */
export const WEAK_BITS = bitsFor(HOUR_S);
/** From here on it takes three years [A]: 64.0 bit. */
export const STRONG_BITS = bitsFor(3 * YEAR_S);

/** How long the half of all secrets of such a strength takes somebody who overheard a login, in words. */
export function sayStrength(bits: number): string {
  const years = 2 ** (bits - 1) / GUESSES_PER_SECOND / YEAR_S;
  if (years >= 1e6) return 'longer than anybody can guess';
  if (years >= 1) return `about ${Math.round(years).toLocaleString('en').replaceAll(',', '\u00a0')} years of guessing`;
  const hours = years * 365.25 * 24;
  return hours >= 48
    ? `about ${Math.round(hours / 24)} days of guessing`
    : hours >= 1
      ? `about ${Math.round(hours)} hours of guessing`
      : 'guessed within an hour';
}
