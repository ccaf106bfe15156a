import type { Work } from './work.ts';

/** Work that is under way, so that a server that is told to stop can let each piece take its leave. */
export class RunningWork {
  readonly #running = new Map<AbortController, { readonly work: Work; readonly done: Promise<unknown> }>();

  /** How much of one kind is under way. */
  count(work: Work): number {
    return [...this.#running.values()].filter((one) => one.work === work).length;
  }

  /** Runs what ends soon after its signal aborts, and counts it until then. */
  async run<T>(work: Work, controller: AbortController, start: (signal: AbortSignal) => Promise<T>): Promise<T> {
    const done = start(controller.signal);
    this.#running.set(controller, { work, done });
    try {
      return await done;
    } finally {
      this.#running.delete(controller);
    }
  }

  /** Ends all of it; resolves when each has taken its leave. */
  async endAll(reason: string): Promise<void> {
    const all = [...this.#running];
    for (const [controller] of all) controller.abort(new Error(reason));
    await Promise.allSettled(all.map(([, { done }]) => done));
  }
}
