/** A page that took nothing of what waits for it for so long is gone. */
export const MOST_UNREAD_MS = 10_000;

/** Watches what waits for a page: one that reads nothing would keep a session at a camera for nobody. */
export class Unread {
  #last = 0;
  #sinceMs: number;

  constructor(nowMs: number) {
    this.#sinceMs = nowMs;
  }

  /** Whether nothing was taken for too long. @param waiting bytes that wait now */
  isGone(waiting: number, nowMs: number): boolean {
    if (waiting === 0 || waiting < this.#last) this.#sinceMs = nowMs;
    this.#last = waiting;
    return nowMs - this.#sinceMs > MOST_UNREAD_MS;
  }
}
