/** How well a wish is met. `unknown` means a number is missing, never that all is well. */
export type Verdict = 'ok' | 'tight' | 'will-not-work' | 'unknown';

/** As it is said on every screen and in every file. */
export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  ok: 'fits',
  tight: 'tight',
  'will-not-work': 'won’t work',
  unknown: 'not known',
};

/** Every threshold comparison gives the better verdict this much slack, so that 42.4999999 V counts as 42.5 V. */
export const THRESHOLD_SLACK = 1e-6;

const ORDER: readonly Verdict[] = ['ok', 'tight', 'unknown', 'will-not-work'];

/** The worst of several verdicts; of none, `unknown`. */
export function worstVerdict(verdicts: readonly Verdict[]): Verdict {
  let worst: Verdict | undefined;
  for (const verdict of verdicts) if (!worst || ORDER.indexOf(verdict) > ORDER.indexOf(worst)) worst = verdict;
  return worst ?? 'unknown';
}

/** Whether one verdict is worse than another. */
export const isWorse = (verdict: Verdict, than: Verdict): boolean => ORDER.indexOf(verdict) > ORDER.indexOf(than);

/**
 * Verdict on a value that should be large: `ok` from `okFrom` up, `tight` from `tightFrom` up, else `will-not-work`.
 * The slack is relative to the threshold.
 */
export function atLeast(value: number, okFrom: number, tightFrom: number): Verdict {
  if (value >= okFrom - Math.abs(okFrom) * THRESHOLD_SLACK) return 'ok';
  return value >= tightFrom - Math.abs(tightFrom) * THRESHOLD_SLACK ? 'tight' : 'will-not-work';
}
/** The same for a value that should be small. */
export function atMost(value: number, okTo: number, tightTo: number): Verdict {
  if (value <= okTo + Math.abs(okTo) * THRESHOLD_SLACK) return 'ok';
  return value <= tightTo + Math.abs(tightTo) * THRESHOLD_SLACK ? 'tight' : 'will-not-work';
}
