import { estimatedBits } from './secret-traits.ts';

/**
 * Bits by which a password is found that somebody thought up, by whoever tries words, names, years, rows of keys and letters
 * changed for digits in the order in which people use them.
 * @param hints words that belong to it: names of its camera, of its site, of its account
 */
export type GuessEstimator = (secret: string, hints: readonly string[]) => number;

/** Words are looked for in pieces of this: looking takes longer than in proportion. */
const PIECE = 24;
/** What follows these makes it no weaker, and is not looked at. */
const PIECES = 3;
/** Ways to read digits as letters that are tried. */
const SUBSTITUTIONS = 16;

let loaded: Promise<GuessEstimator> | null = null;

/** Loads the dictionaries once, when they are asked for: they are larger than the rest of a page. */
export function loadGuessEstimator(): Promise<GuessEstimator> {
  loaded ??= build().catch((error: unknown) => {
    loaded = null; // asked again the next time
    throw error;
  });
  return loaded;
}

async function build(): Promise<GuessEstimator> {
  const [{ ZxcvbnFactory }, common, english] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
    import('@zxcvbn-ts/language-en'),
  ]);
  const estimator = new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
    maxLength: PIECE,
    l33tMaxSubstitutions: SUBSTITUTIONS,
  });
  const bitsOf = (piece: string, hints: readonly string[]): number => {
    const { guesses, sequence } = estimator.check(piece, [...hints]);
    // What is none of these is reckoned there as one of ten to a character, whatever it is: here by the kinds that occur in it.
    const parts = sequence.reduce(
      (bits, { pattern, token, guesses: own }) =>
        bits + (pattern === 'bruteforce' ? estimatedBits(token) : Math.log2(Math.max(1, own))),
      0,
    );
    return Math.max(Math.log2(Math.max(1, guesses)), parts);
  };
  return (secret, hints) => {
    const signs = [...secret];
    let bits = 0;
    for (let from = 0; from < Math.min(signs.length, PIECE * PIECES); from += PIECE)
      bits += bitsOf(signs.slice(from, from + PIECE).join(''), hints);
    return bits;
  };
}
