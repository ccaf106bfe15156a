/** Two-sided 95 %. */
const Z = 1.959964;

/** What a count proves of a share: both ends, 0 to 1. */
export interface ShareInterval {
  readonly low: number;
  readonly high: number;
}

/**
 * Score interval of a share, 95 %: right for few events too, where share ± error would reach below none.
 * Source: E. B. Wilson, “Probable inference, the law of succession, and statistical inference”, J. Am. Stat. Assoc. 22 (1927).
 * @param of at least 1; more events than that count as all
 */
export function shareInterval(events: number, of: number): ShareInterval {
  const n = Math.max(1, of);
  const p = Math.min(1, Math.max(0, events / n));
  const z2 = Z * Z;
  const middle = p + z2 / (2 * n);
  const reach = Z * Math.sqrt((p * (1 - p)) / n + z2 / (4 * n * n));
  const whole = 1 + z2 / n;
  return { low: events <= 0 ? 0 : (middle - reach) / whole, high: events >= n ? 1 : (middle + reach) / whole };
}
