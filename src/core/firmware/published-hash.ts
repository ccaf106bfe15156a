import { clipText } from '../base/clip.ts';

/** `unsaid` where none was published: then nobody can tell. */
export type HashVerdict = 'ok' | 'mismatch' | 'bad-digest' | 'unsaid';

const DIGEST = /^[0-9a-f]{64}$/;
/** A line of a list of digests is shorter; what follows the digest is the name of a file. */
const MOST_CHARS = 4096;

/** The digest in what was published: the first word, in small letters. “ED59… image.bin” is read as its first 64 signs. */
export const digestIn = (published: string): string =>
  clipText(published, MOST_CHARS).trim().split(/\s/, 1)[0]?.toLowerCase() ?? '';

/**
 * Compares what was computed with what was published.
 * @param sha256 64 hexadecimal digits
 * Source: FIPS 180-4: a SHA-256 digest has 256 bits, 64 hexadecimal digits.
 */
export function compareHash(sha256: string, published: string): HashVerdict {
  const digest = digestIn(published);
  if (digest === '') return 'unsaid';
  if (!DIGEST.test(digest)) return 'bad-digest';
  return digest === sha256.toLowerCase() ? 'ok' : 'mismatch';
}

/** What is wrong with a published digest, in words; `null` when nothing is. */
export function digestProblem(published: string): string | null {
  const digest = digestIn(published);
  if (digest === '' || DIGEST.test(digest)) return null;
  const odd = [...digest].find((sign) => !/[0-9a-f]/.test(sign));
  return odd === undefined
    ? `A SHA-256 checksum has 64 digits, this has ${digest.length}. Copy it whole from where it was published.`
    : `A SHA-256 checksum has only the digits 0 to 9 and a to f; “${odd}” is none of them.`;
}
