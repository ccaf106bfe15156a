import { randomBytes } from 'node:crypto';

/** Something that happened to a property, as a subscriber is told. */
export interface ToldEvent {
  readonly topic: string;
  readonly change: 'Initialized' | 'Changed';
  readonly item: { readonly name: string; readonly value: string };
  readonly unixMs: number;
}

interface PullPoint {
  endsMs: number;
  queue: ToldEvent[];
  wake: (() => void) | null;
}

/** What is not fetched by then is lost, the oldest first. */
const MOST_QUEUED = 100;
const MOST_SUBSCRIBERS = 8;

/** Subscriptions of a simulated device. */
export class PullPoints {
  readonly #points = new Map<string, PullPoint>();

  constructor(
    private readonly nowMs: () => number,
    /** It ends them after this, whatever was agreed. */
    private readonly mostMs: number | null,
  ) {}

  get isHeard(): boolean {
    this.#sweep();
    return this.#points.size > 0;
  }

  /** The name of a new one; `null` where there are too many. */
  create(lifeMs: number, first: readonly ToldEvent[]): string | null {
    this.#sweep();
    if (this.#points.size >= MOST_SUBSCRIBERS) return null;
    const name = randomBytes(6).toString('hex');
    this.#points.set(name, {
      endsMs: this.nowMs() + Math.min(lifeMs, this.mostMs ?? lifeMs),
      queue: [...first],
      wake: null,
    });
    return name;
  }

  tell(event: ToldEvent): void {
    for (const point of this.#points.values()) {
      point.queue = [...point.queue, event].slice(-MOST_QUEUED);
      point.wake?.();
    }
  }

  /** Until when it stands; `null` where there is none of that name any more. */
  endOf(name: string): number | null {
    this.#sweep();
    return this.#points.get(name)?.endsMs ?? null;
  }

  renew(name: string, lifeMs: number): number | null {
    const point = this.endOf(name) === null ? undefined : this.#points.get(name);
    if (!point || this.mostMs !== null) return point?.endsMs ?? null;
    point.endsMs = this.nowMs() + lifeMs;
    return point.endsMs;
  }

  remove(name: string): boolean {
    this.#points.get(name)?.wake?.();
    return this.#points.delete(name);
  }

  /** What is there, or what comes within so long. */
  async pull(name: string, waitMs: number, most: number, signal: AbortSignal): Promise<readonly ToldEvent[] | null> {
    const point = this.endOf(name) === null ? undefined : this.#points.get(name);
    if (!point) return null;
    if (point.queue.length === 0)
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, Math.min(waitMs, Math.max(0, point.endsMs - this.nowMs())));
        timer.unref();
        const wake = (): void => {
          clearTimeout(timer);
          resolve();
        };
        point.wake = wake;
        signal.addEventListener('abort', wake, { once: true });
      });
    point.wake = null;
    return point.queue.splice(0, most);
  }

  close(): void {
    for (const point of this.#points.values()) point.wake?.();
    this.#points.clear();
  }

  #sweep(): void {
    for (const [name, { endsMs }] of this.#points) if (endsMs <= this.nowMs()) this.remove(name);
  }
}
