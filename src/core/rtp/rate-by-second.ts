/** So many seconds are kept: a probe lasts no longer. */
const MOST_SECONDS = 60;

/** How many bytes came in each second since the first packet. */
export class RateBySecond {
  readonly #bytes: number[] = [];
  #firstAtMs: number | null = null;

  push(byteCount: number, atMs: number): void {
    this.#firstAtMs ??= atMs;
    const second = Math.floor((atMs - this.#firstAtMs) / 1000);
    if (second < 0 || second >= MOST_SECONDS) return;
    while (this.#bytes.length <= second) this.#bytes.push(0);
    this.#bytes[second] = (this.#bytes[second] ?? 0) + byteCount;
  }

  /** kbit/s of each whole second; the last one is left out, since it is cut. */
  get kbps(): readonly number[] {
    return this.#bytes.slice(0, -1).map((bytes) => Math.round(bytes * 8) / 1000);
  }
}
