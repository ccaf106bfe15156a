/** Probes and views that are under way, so that a server that is told to stop can let each say goodbye. */
export class RunningWork {
  readonly #running = new Map<AbortController, Promise<unknown>>();

  get size(): number {
    return this.#running.size;
  }

  /** Runs work that ends soon after its signal aborts, and counts it until then. */
  async run<T>(controller: AbortController, start: (signal: AbortSignal) => Promise<T>): Promise<T> {
    const done = start(controller.signal);
    this.#running.set(controller, done);
    try {
      return await done;
    } finally {
      this.#running.delete(controller);
    }
  }

  /** Ends all of it; resolves when every goodbye is said. */
  async endAll(reason: string): Promise<void> {
    const all = [...this.#running];
    for (const [controller] of all) controller.abort(new Error(reason));
    await Promise.allSettled(all.map(([, done]) => done));
  }
}
