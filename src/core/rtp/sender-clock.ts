import type { SenderReport } from './sender-report.ts';

const TIMESTAMP_MODULUS = 2 ** 32;
/** Between reports nearer than this a clock is not told from the grain of their numbers [A]. */
const LEAST_SPAN_S = 2;

/**
 * How fast a track's time stamps run against the wall clock of the same camera, from its sender reports. A player that trusts one
 * of the two drifts away from the other, and tracks that differ drift apart. Source: RFC 3550 §6.4.1.
 */
export class SenderClock {
  #first: SenderReport | null = null;
  #last: SenderReport | null = null;

  constructor(private readonly clockHz: number) {}

  push(report: SenderReport): void {
    if (report.unixMs === null) return;
    if (this.#first?.ssrc !== report.ssrc) this.#first = report; // another source counts from elsewhere
    this.#last = report;
  }

  /** Millionths by which time stamps run ahead; `null` before two reports far enough apart. */
  get ppm(): number | null {
    const [first, last] = [this.#first, this.#last];
    if (first?.unixMs == null || last?.unixMs == null) return null;
    const wallS = (last.unixMs - first.unixMs) / 1000;
    if (wallS < LEAST_SPAN_S) return null;
    let ticks = (last.rtpTimestamp - first.rtpTimestamp) % TIMESTAMP_MODULUS;
    if (ticks < 0) ticks += TIMESTAMP_MODULUS;
    return (ticks / this.clockHz / wallS - 1) * 1e6;
  }
}
