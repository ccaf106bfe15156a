import { type GuessEstimator, loadGuessEstimator } from '../../core/auth/guess-estimator.ts';

/** By password and its hints: each is looked at once. It lives as long as this page, and goes nowhere. */
const known = new Map<string, number>();
const waiting = new Map<string, { readonly secret: string; readonly hints: readonly string[] }>();
const listeners = new Set<() => void>();
let estimator: GuessEstimator | null = null;
let isDue = false;
/** Where the dictionaries could not be loaded they are not asked for again before. */
let notBeforeMs = 0;
const AGAIN_AFTER_MS = 30_000;
/** How long a piece of work may take before the page has its turn, ms. */
const SLICE_MS = 8;
/** More is of sites that were opened before. */
const MOST_KEPT = 20_000;

const keyOf = (secret: string, hints: readonly string[]): string => JSON.stringify([secret, hints]);

/** Bits by which it is guessed; `null` while that is looked for, which whoever listens is then told. */
export function guessBitsOf(secret: string, hints: readonly string[]): number | null {
  const key = keyOf(secret, hints);
  const found = known.get(key);
  if (found !== undefined) return found;
  waiting.set(key, { secret, hints });
  void work();
  return null;
}

/** Told when more is known; gives what takes it back. */
export function onStrengthKnown(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

async function work(): Promise<void> {
  if (isDue || performance.now() < notBeforeMs) return;
  isDue = true;
  try {
    estimator ??= await loadGuessEstimator();
    while (waiting.size > 0) {
      lookUntil(performance.now() + SLICE_MS, estimator);
      await new Promise((resolve) => setTimeout(resolve));
    }
  } catch {
    // the server is away: strength stays not known. Nobody is told, for whoever is told asks again at once
    notBeforeMs = performance.now() + AGAIN_AFTER_MS;
    waiting.clear();
    return;
  } finally {
    isDue = false;
  }
  for (const listener of listeners) listener();
}

function lookUntil(endMs: number, estimate: GuessEstimator): void {
  if (known.size > MOST_KEPT) known.clear();
  for (const [key, { secret, hints }] of waiting) {
    waiting.delete(key);
    known.set(key, estimate(secret, hints));
    if (performance.now() > endMs) return;
  }
}
