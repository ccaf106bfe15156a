import type { PtzPosition, PtzStatus } from '../onvif/services/ptz.ts';

/** How often it is asked where it looks, while it moves and while it rests. */
const ASK_MOVING_MS = 200;
const ASK_RESTING_MS = 1500;
/** Less is the grain of its numbers. */
const STILL = 0.0006;
/** Where a head looks and whether it moves, as it last told, and when it is asked again. */
export class HeadStatus {
  #position: PtzPosition | null = null;
  /** `null` where it tells nothing of it. */
  isMoving: boolean | null = null;
  #askedMs = Number.NEGATIVE_INFINITY;
  #toldMs = Number.NEGATIVE_INFINITY;

  get position(): PtzPosition | null {
    return this.#position;
  }
  /** When the question was asked that it answered last. */
  get toldMs(): number {
    return this.#toldMs;
  }

  begin(position: PtzPosition | null): void {
    this.#position = position;
  }
  isDue(atMs: number, mayMove: boolean): boolean {
    return atMs - this.#askedMs >= (mayMove ? ASK_MOVING_MS : ASK_RESTING_MS);
  }
  asked(atMs: number): void {
    this.#askedMs = atMs;
  }
  told({ position, isMoving }: PtzStatus): void {
    const before = this.#position;
    this.#position = position;
    // where both tell, the position counts too: some say “idle” while they turn
    this.isMoving = position && before ? isApart(position, before) || isMoving === true : isMoving;
    this.#toldMs = this.#askedMs;
  }
}

const isApart = (a: PtzPosition, b: PtzPosition): boolean =>
  Math.abs(a.pan - b.pan) > STILL ||
  Math.abs(a.tilt - b.tilt) > STILL ||
  Math.abs((a.zoom ?? 0) - (b.zoom ?? 0)) > STILL;
