import { estimatedBits } from './secret-traits.ts';

/**
 * Bits by which a password is found that somebody thought up, by whoever tries words, names, years, rows of keys and letters
 * changed for digits in the order in which people use them.
 * @param hints words that belong to it: names of its camera, of its site, of its account
 */
export type GuessEstimator = (secret: string, hints: readonly string[]) => number;

/** Longer ones are looked at so far: what follows makes them no weaker, and looking takes longer than it tells. */
const LOOKED_AT = 64;

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
    maxLength: LOOKED_AT,
  });
  return (secret, hints) => {
    const { guesses, sequence } = estimator.check([...secret].slice(0, LOOKED_AT).join(''), [...hints]);
    // What is none of these is reckoned there as one of ten to a character, whatever it is: here by the kinds that occur in it.
    const least = Math.log2(Math.max(1, guesses));
    const parts = sequence.reduce(
      (bits, { pattern, token, guesses: own }) =>
        bits + (pattern === 'bruteforce' ? estimatedBits(token) : Math.log2(Math.max(1, own))),
      0,
    );
    return Math.max(least, parts);
  };
}
