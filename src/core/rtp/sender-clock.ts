import type { SenderReport } from './sender-report.ts';

const TIMESTAMP_MODULUS = 2 ** 32;
/** What a report's two stamps are good to at best [A]. */
const GRAIN_S = 0.001;
/** Two reports lie on a line whatever their stamps are worth. */
const LEAST_REPORTS = 3;
/** Reports that are kept; more than a sample of ten minutes has. */
const KEPT_REPORTS = 256;

/** How a track's time stamps run against the wall clock of the same camera. */
export interface SenderPace {
  /** Millionths by which time stamps run ahead. */
  readonly ppm: number;
  /** How well that is known, over this span with stamps as good as these were. */
  readonly plusMinusPpm: number;
}

/**
 * How fast a track's time stamps run against the wall clock of the same camera, from its sender reports. A player that trusts one
 * of the two drifts away from the other, and tracks that differ drift apart. Source: RFC 3550 §6.4.1.
 */
export class SenderClock {
  #ssrc: number | null = null;
  #stamp = 0;
  readonly #wallS: number[] = [];
  readonly #mediaS: number[] = [];

  constructor(private readonly clockHz: number) {}

  push({ ssrc, unixMs, rtpTimestamp }: SenderReport): void {
    if (unixMs === null) return;
    if (this.#ssrc !== ssrc) this.#beginAnew(ssrc, rtpTimestamp); // another source counts from elsewhere
    let ticks = (rtpTimestamp - this.#stamp) % TIMESTAMP_MODULUS;
    if (ticks > TIMESTAMP_MODULUS / 2) ticks -= TIMESTAMP_MODULUS;
    if (ticks < -TIMESTAMP_MODULUS / 2) ticks += TIMESTAMP_MODULUS;
    this.#stamp = rtpTimestamp;
    this.#wallS.push(unixMs / 1000);
    this.#mediaS.push((this.#mediaS.at(-1) ?? 0) + ticks / this.clockHz);
    if (this.#wallS.length <= KEPT_REPORTS) return;
    this.#wallS.shift();
    this.#mediaS.shift();
  }

  #beginAnew(ssrc: number, rtpTimestamp: number): void {
    this.#ssrc = ssrc;
    this.#stamp = rtpTimestamp;
    this.#wallS.length = 0;
    this.#mediaS.length = 0;
  }

  /** `null` before three reports. */
  get pace(): SenderPace | null {
    const [first, last] = [this.#wallS[0], this.#wallS.at(-1)];
    const [start, end] = [this.#mediaS[0], this.#mediaS.at(-1)];
    if (this.#wallS.length < LEAST_REPORTS) return null;
    if (first === undefined || last === undefined || start === undefined || end === undefined || last <= first)
      return null;
    const spanS = last - first;
    const pace = (end - start) / spanS;
    // reports between the two show how far their stamps are off the line
    let grainS = GRAIN_S;
    for (const [at, wallS] of this.#wallS.entries())
      grainS = Math.max(grainS, Math.abs((this.#mediaS[at] ?? 0) - start - pace * (wallS - first)));
    return { ppm: (pace - 1) * 1e6, plusMinusPpm: (grainS / spanS) * 1e6 };
  }
}
