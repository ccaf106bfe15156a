const TIMESTAMP_MODULUS = 2 ** 32;

export interface Jitter {
  readonly jitterTicks: number;
  /** As an RTCP receiver report would carry it: integer arithmetic scaled by 16. */
  readonly jitterReported: number;
  readonly jitterMs: number;
  readonly maxJitterMs: number;
}

/**
 * Interarrival jitter: D = difference of relative transit times, J += (|D| − J)/16.
 * Several packets of one frame share a time stamp and raise it slightly; that is the standard's definition.
 * Source: RFC 3550 §6.4.1, §A.8 (both the floating and the integer form).
 */
export class JitterMeter {
  #transit: number | null = null;
  #jitter = 0;
  #scaled = 0;
  #max = 0;

  constructor(private readonly clockHz: number) {}

  /** The source changed: its time stamps have nothing to do with those before. */
  restart(): void {
    this.#transit = null;
  }

  /** @param arrivalMs any monotonic clock, ms with fractions */
  push(rtpTimestamp: number, arrivalMs: number): void {
    // The tiny term absorbs binary rounding, so that 0.1 ms × 90 kHz is 9 ticks and not 8.
    const arrivalTicks = Math.floor((arrivalMs * this.clockHz) / 1000 + 1e-6);
    const transit = arrivalTicks - rtpTimestamp;
    if (this.#transit !== null) {
      let d = (transit - this.#transit) % TIMESTAMP_MODULUS;
      if (d > TIMESTAMP_MODULUS / 2) d -= TIMESTAMP_MODULUS;
      if (d < -TIMESTAMP_MODULUS / 2) d += TIMESTAMP_MODULUS;
      this.#jitter += (Math.abs(d) - this.#jitter) / 16;
      this.#scaled += Math.abs(d) - Math.floor((this.#scaled + 8) / 16);
      this.#max = Math.max(this.#max, this.#jitter);
    }
    this.#transit = transit;
  }

  get value(): Jitter {
    const ms = (ticks: number): number => (ticks / this.clockHz) * 1000;
    return {
      jitterTicks: this.#jitter,
      jitterReported: Math.floor(this.#scaled / 16),
      jitterMs: ms(this.#jitter),
      maxJitterMs: ms(this.#max),
    };
  }
}
