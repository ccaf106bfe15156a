/** Frames that are looked at: J forgets what lies sixteen frames back by two thirds. */
const KEPT_FRAMES = 256;
const GAIN = 16;

/**
 * Interarrival jitter of frames: J += (|D| − J)/16 over the first packet of each frame in decoding order. The measure of
 * RFC 3550 §6.4.1 takes every packet in the order of its time stamp; with pictures that are sent before others that are shown
 * earlier, and with many packets of one time stamp, it is large on a perfect line. Here the n-th frame that arrives is due at
 * the n-th smallest time stamp: that is when its decoder wants it.
 */
export class FrameJitter {
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

  /** `null` before three frames: two say nothing of evenness. */
  get jitterMs(): number | null {
    const due = this.#ticks.slice(-KEPT_FRAMES).sort((a, b) => a - b);
    const came = this.#atMs.slice(-KEPT_FRAMES);
    if (due.length < 3) return null;
    let jitter = 0;
    for (let at = 1; at < due.length; at++) {
      const dueMs = (((due[at] ?? 0) - (due[at - 1] ?? 0)) * 1000) / this.clockHz;
      const cameMs = (came[at] ?? 0) - (came[at - 1] ?? 0);
      jitter += (Math.abs(cameMs - dueMs) - jitter) / GAIN;
    }
    return jitter;
  }
}
