import type { HttpEffect, HttpInput } from '../machine/machine.ts';
import { createNumbers, type LineMoved, OnvifLine } from './onvif-line.ts';
import type { Script } from './onvif-script.ts';
import type { OnvifSession } from './onvif-session.ts';
import type { Said } from './ptz-scripts.ts';

const STOP_TIMEOUT_MS = 2000;

export type LineName = 'steer' | 'stop' | 'status';

/** Three lines to one head: moves, stops and looks. A stop waits for no other answer. */
export class PtzLines {
  readonly #lines: Readonly<Record<LineName, OnvifLine<Said>>>;
  readonly #done = new Map<OnvifLine<Said>, (said: Said) => void>();

  constructor(
    session: OnvifSession,
    timeoutMs: number,
    private readonly emit: (...effects: readonly HttpEffect[]) => void,
  ) {
    const number = createNumbers();
    this.#lines = {
      steer: new OnvifLine(session, { name: 'steer', timeoutMs, number }),
      stop: new OnvifLine(session, { name: 'stop', timeoutMs: Math.min(timeoutMs, STOP_TIMEOUT_MS), number }),
      status: new OnvifLine(session, { name: 'status', timeoutMs, number }),
    };
  }

  isBusy(name: LineName): boolean {
    return this.#lines[name].isBusy;
  }
  /** @param done takes what came of it, at once where nothing need be sent */
  run(name: LineName, script: Script<Said>, atMs: number, done: (said: Said) => void): void {
    const line = this.#lines[name];
    this.#done.set(line, done);
    this.#put(line, line.run(script, atMs));
  }
  handle(input: HttpInput): void {
    for (const line of Object.values(this.#lines)) this.#put(line, line.handle(input));
  }

  #put(line: OnvifLine<Said>, { effects, result }: LineMoved<Said>): void {
    this.emit(...effects);
    if (result) this.#done.get(line)?.(result);
  }
}
