/**
 * What can be said of a secret without telling it. It is made where the secrets are and goes to where is judged; neither
 * goes into a document.
 */
export interface SecretTraits {
  readonly length: number;
  /** Bits at most: as if its signs were drawn from the kinds that occur in it; repeats and rows count once. */
  readonly bits: number;
  /** Bits by which a thought-up one is found (guess-estimator.ts); `null` while nobody looked. */
  readonly guessBits: number | null;
  readonly hasBlankAtEnd: boolean;
  /** Signs of it that a URL must encode (RFC 3986 §2.3). */
  readonly encodedSigns: readonly string[];
  /** All its signs that are neither a letter nor a digit, once each. */
  readonly signs: readonly string[];
  /** It mixes 0 with O, or 1 with l or I. */
  readonly mixesLookalikes: boolean;
  /** It is among those that everybody tries first, or the one of the model card. */
  readonly isKnown: boolean;
  /** Names of other accounts of the site with the same secret. */
  readonly sharedWith: readonly string[];
  readonly isAdministrators: boolean;
  /** Another one of the site, or of the card, is the same but for the case of letters. */
  readonly isCaseApart: boolean;
}

/** [A] What is tried first on every camera. */
const TRIED_FIRST: ReadonlySet<string> = new Set([
  '',
  'admin',
  'administrator',
  'password',
  'pass',
  'root',
  'user',
  'guest',
  'default',
  'camera',
  'system',
  'service',
  'supervisor',
  'viewer',
  '0000',
  '1111',
  '1234',
  '12345',
  '123456',
  '12345678',
  '123456789',
  '888888',
  '666666',
  '9999',
  '4321',
  'qwerty',
  'abc123',
  'admin123',
  'admin1234',
  'admin12345',
  'password1',
  'letmein',
]);

const UNRESERVED = /^[A-Za-z0-9\-._~]$/;
const KINDS: readonly { readonly is: RegExp; readonly size: number }[] = [
  { is: /[a-z]/, size: 26 },
  { is: /[A-Z]/, size: 26 },
  { is: /[0-9]/, size: 10 },
  { is: /[^A-Za-z0-9]/, size: 33 },
];

/** Signs that tell something new: neither the one before again, nor the next of a row such as 1234 or cba. */
function tellingSigns(secret: string): number {
  let count = 0;
  let before = Number.NaN;
  let lastStep = Number.NaN;
  for (const sign of secret) {
    const code = sign.codePointAt(0) ?? 0;
    const step = code - before;
    const isRow = step === 0 || (Math.abs(step) === 1 && step === lastStep);
    if (!isRow) count += 1;
    lastStep = step;
    before = code;
  }
  return count;
}

/** Bits at most of a secret that somebody thought of. “aaaaaaaa” has 4.7, “12345678” 6.6. */
export function estimatedBits(secret: string): number {
  const size = KINDS.reduce((sum, { is, size: own }) => sum + (is.test(secret) ? own : 0), 0);
  return size === 0 ? 0 : tellingSigns(secret) * Math.log2(size);
}

/** What can be said of its strength: the lower of both; `isProven` is false while only the kinds of its characters are counted. */
export const strengthOf = ({ bits, guessBits }: Pick<SecretTraits, 'bits' | 'guessBits'>) => ({
  bits: guessBits === null ? bits : Math.min(bits, guessBits),
  isProven: guessBits !== null,
});

const LOOKALIKES: readonly (readonly string[])[] = [
  ['0', 'O', 'o'],
  ['1', 'l', 'I'],
];

export interface SecretOthers {
  /** Of the model card. */
  readonly factory: string | null;
  readonly administrator: string | null;
  /** Names of other cameras that have the same. */
  readonly sharedWith: readonly string[];
  /** Secrets of the site that are the same but for the case of letters. */
  readonly sameLetters: readonly string[];
  readonly guessBits?: number | null;
}

export function traitsOf(secret: string, others: SecretOthers): SecretTraits {
  const { factory, administrator, sharedWith, sameLetters } = others;
  const all = [...new Set(secret)];
  const lower = secret.toLowerCase();
  return {
    length: [...secret].length,
    bits: estimatedBits(secret),
    guessBits: others.guessBits ?? null,
    hasBlankAtEnd: secret !== secret.trim(),
    encodedSigns: all.filter((sign) => !UNRESERVED.test(sign)),
    signs: all.filter((sign) => !/[A-Za-z0-9]/.test(sign)),
    mixesLookalikes: LOOKALIKES.some((group) => group.filter((sign) => secret.includes(sign)).length > 1),
    isKnown: secret === factory || TRIED_FIRST.has(lower),
    sharedWith,
    isAdministrators: secret === administrator,
    isCaseApart: [factory, administrator, ...sameLetters].some(
      (other) => other !== null && other !== secret && other.toLowerCase() === lower,
    ),
  };
}
