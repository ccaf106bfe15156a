/** After a stop it is looked at so often; if it moves on then, the stop is said again. */
const LOOKS = 2;
/** So long a stop that does not work is said again; then whoever asked is told that it does not. */
export const STOP_FOR_MS = 10_000;
/** Where looking takes longer than this, the stop is said again without having been seen to be lost. */
const LOOK_WITHIN_MS = 2500;
/** A head that tells nothing is told twice: nobody would notice that one was lost. */
const SECOND_STOP_MS = 150;

/** What is to be done about a stop that was said. */
export type StopStep = 'wait' | 'say' | 'say, it was lost' | 'rested' | 'does not rest';

/** One stop of a head, until it is known to have worked: a lost one would run it into its end. */
export class HeadStop {
  #saidMs = 0;
  #beganMs: number | null = null;
  #times = 0;
  #looks = 0;
  /** A move that was on its way may have come to the head after the stop. */
  #isDue = true;

  get times(): number {
    return this.#times;
  }

  said(atMs: number): void {
    this.#saidMs = atMs;
    this.#beganMs ??= atMs;
    this.#times += 1;
    this.#looks = 0;
    this.#isDue = false;
  }
  /** A move was answered that had gone out before. */
  overtaken(): void {
    this.#isDue = true;
  }
  /** It was looked at, by a question of that time. */
  looked(askedMs: number): void {
    if (this.#times > 0 && askedMs > this.#saidMs) this.#looks += 1;
  }

  step(atMs: number, head: { readonly tellsNothing: boolean; readonly isMoving: boolean | null }): StopStep {
    const isOver = this.#beganMs !== null && atMs - this.#beganMs >= STOP_FOR_MS;
    if (this.#isDue && !isOver) return 'say';
    const sinceMs = atMs - this.#saidMs;
    if (head.tellsNothing) {
      if (this.#times >= 2) return 'rested';
      return sinceMs >= SECOND_STOP_MS ? 'say' : 'wait';
    }
    if (this.#looks > 0 && head.isMoving === false) return 'rested';
    if (isOver && sinceMs >= LOOK_WITHIN_MS) return 'does not rest';
    const isLost = this.#looks >= LOOKS && head.isMoving === true;
    if (!isLost && sinceMs < LOOK_WITHIN_MS) return 'wait';
    if (isOver) return 'does not rest';
    return isLost ? 'say, it was lost' : 'say';
  }
}
