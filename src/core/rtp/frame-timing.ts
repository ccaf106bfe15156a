/** As many frames as a sample of ten minutes has at 60 a second; later ones take the place of the first. */
const KEPT_FRAMES = 36_000;
/** A start is uneven on any line, and a slow one is no other clock [A]. */
const START_MS = 1000;
/** Of fewer nothing is said about their evenness. */
const LEAST_FRAMES = 3;
/** From fewer frames, or over less time, no clock is told [A]. */
const LEAST_CLOCK_FRAMES = 20;
const LEAST_CLOCK_MS = 1500;

export interface FrameTiming {
  /** Frames later than they were due against the earliest, ms: 95 of 100 were within it. */
  readonly delayP95Ms: number;
  /** The longest that none began beyond when the next was due, ms: time stamps that pause are no gap. */
  readonly longestGapMs: number;
  /** Seconds that time stamps count in one second of arrival, and how well that is known; `null` where too little came. */
  readonly clock: { readonly ratio: number; readonly plusMinus: number } | null;
}

interface Series {
  readonly dueMs: readonly number[];
  readonly cameMs: readonly number[];
}

/**
 * How evenly frames arrive, by the first packet of each. The n-th frame that arrives is due at the n-th smallest time stamp:
 * pictures that are sent before others that are shown earlier are then no jitter on a perfect line (RFC 3550 §6.4.1 takes
 * packets in the order of their time stamps). The running mean of that section forgets a stall of half a second within the
 * next; here the whole sample counts, but its first second.
 */
export class FrameTimes {
  readonly #ticks: number[] = [];
  readonly #atMs: number[] = [];

  constructor(private readonly clockHz: number) {}

  /** @param ticks time stamp without wraps and jumps; @param atMs any monotonic clock */
  push(ticks: number, atMs: number): void {
    this.#ticks.push(ticks);
    this.#atMs.push(atMs);
    if (this.#ticks.length <= 2 * KEPT_FRAMES) return;
    this.#ticks.splice(0, KEPT_FRAMES);
    this.#atMs.splice(0, KEPT_FRAMES);
  }

  /** What came before was a burst of what a relay had kept. */
  restart(): void {
    this.#ticks.length = 0;
    this.#atMs.length = 0;
  }

  /**
   * `null` before three frames: two say nothing of evenness.
   * @param settled frames from the last restart up to which none is missing that is shown before them
   */
  timing(settled = Number.POSITIVE_INFINITY): FrameTiming | null {
    const series = steady(this.#series(settled));
    const { dueMs, cameMs } = series;
    if (dueMs.length < LEAST_FRAMES) return null;
    const clock = clockOf(series);
    // a clock that is certainly another one is no delay that grows
    const isOther = clock !== null && Math.abs(clock.ratio - 1) > clock.plusMinus;
    const ratio = isOther ? clock.ratio : 1;
    const behind = cameMs.map((came, at) => came - (dueMs[at] ?? 0) / ratio);
    const earliest = lowest(behind);
    const delays = behind.map((late) => late - earliest).sort((a, b) => a - b);
    let longestGapMs = 0;
    for (let at = 1; at < behind.length; at++)
      longestGapMs = Math.max(longestGapMs, (behind[at] ?? 0) - (behind[at - 1] ?? 0));
    return { delayP95Ms: delays[Math.ceil(0.95 * delays.length) - 1] ?? 0, longestGapMs, clock };
  }

  #series(settled: number): Series {
    const count = Math.min(this.#ticks.length, Math.max(LEAST_FRAMES, settled));
    const ticks = [...this.#ticks].sort((a, b) => a - b).slice(0, count);
    return { dueMs: ticks.map((tick) => (tick * 1000) / this.clockHz), cameMs: this.#atMs.slice(0, count) };
  }
}

/** Without the first second, where the rest is as long again. */
function steady({ dueMs, cameMs }: Series): Series {
  const [first, last] = [cameMs[0] ?? 0, cameMs.at(-1) ?? 0];
  if (last - first < 2 * START_MS) return { dueMs, cameMs };
  const from = cameMs.findIndex((at) => at - first >= START_MS);
  return { dueMs: dueMs.slice(from), cameMs: cameMs.slice(from) };
}

/** By least squares; both halves of a sample that tells a clock agree, and how far they do not is its error. */
function clockOf({ dueMs, cameMs }: Series): FrameTiming['clock'] {
  const count = dueMs.length;
  if (count < LEAST_CLOCK_FRAMES || (cameMs.at(-1) ?? 0) - (cameMs[0] ?? 0) < LEAST_CLOCK_MS) return null;
  const half = Math.floor(count / 2);
  const part = (from: number, to: number) => slopeOf({ dueMs: dueMs.slice(from, to), cameMs: cameMs.slice(from, to) });
  const [whole, first, second] = [part(0, count), part(0, half), part(half, count)];
  if (whole === null || first === null || second === null) return null;
  return { ratio: whole.slope, plusMinus: Math.max(2 * whole.error, Math.abs(first.slope - second.slope) / 2) };
}

/** Slope of what was due over what came, with its standard error. */
function slopeOf({ dueMs, cameMs }: Series): { slope: number; error: number } | null {
  const n = dueMs.length;
  if (n < 3) return null;
  const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / n;
  const [meanCame, meanDue] = [mean(cameMs), mean(dueMs)];
  let [xx, xy, yy] = [0, 0, 0];
  for (let at = 0; at < n; at++) {
    const x = (cameMs[at] ?? 0) - meanCame;
    const y = (dueMs[at] ?? 0) - meanDue;
    xx += x * x;
    xy += x * y;
    yy += y * y;
  }
  if (xx <= 0) return null;
  const slope = xy / xx;
  return { slope, error: Math.sqrt(Math.max(0, yy - slope * xy) / (n - 2) / xx) };
}

function lowest(values: readonly number[]): number {
  let least = Number.POSITIVE_INFINITY;
  for (const value of values) least = Math.min(least, value);
  return least;
}
