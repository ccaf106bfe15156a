/** The clock of a camera, by its RTCP sender reports (RFC 3550 §6.4.1), against this computer's. */
export class CameraClock {
  #errorMs: number | null = null;
  #hasReported = false;

  /** @param startedAtUnixMs wall clock at `atMs` 0, ms since 1970 */
  constructor(private readonly startedAtUnixMs: number) {}

  /** Camera clock minus local, ms; `null` while no report told a time. */
  get errorMs(): number | null {
    return this.#errorMs;
  }
  get hasReported(): boolean {
    return this.#hasReported;
  }

  /**
   * @param unixMs the time that a report told, ms since 1970; `null` where it told none
   * @returns what is worth a line on the tape; `null` for a report like the ones before it
   */
  take(unixMs: number | null, atMs: number): string | null {
    const isFirst = !this.#hasReported;
    this.#hasReported = true;
    if (unixMs === null) return isFirst ? 'RTCP sender report without a clock' : null;
    if (this.#errorMs !== null) return null;
    this.#errorMs = Math.round(unixMs - (this.startedAtUnixMs + atMs));
    return `RTCP sender report: camera clock ${new Date(unixMs).toISOString()}`;
  }
}
