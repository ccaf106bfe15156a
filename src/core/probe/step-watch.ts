import type { ProbeStepName } from '../rtsp/exchange-types.ts';
import type { ProbeEffect } from './probe-options.ts';
import type { ProbeStep } from './probe-types.ts';

/** What became of a step; without a word it went well. */
export interface StepEnd {
  readonly ok?: boolean;
  readonly status?: number | null;
  readonly note?: string | null;
}

/** A stopwatch over the steps of a probe: several may run at once, and each is told when it begins and when it ends. */
export class StepWatch {
  readonly #began = new Map<ProbeStepName, number>();
  readonly #steps: ProbeStep[] = [];

  constructor(private readonly emit: (effect: ProbeEffect) => void) {}

  get steps(): readonly ProbeStep[] {
    return this.#steps;
  }

  begin(name: ProbeStepName, atMs: number): void {
    this.#began.set(name, atMs);
    this.emit({ kind: 'stepBegan', name, startMs: atMs });
  }
  /** A step that never began has no end. */
  end(name: ProbeStepName, atMs: number, { ok = true, status = null, note = null }: StepEnd = {}): void {
    const startMs = this.#began.get(name);
    if (startMs === undefined) return;
    this.#began.delete(name);
    const step: ProbeStep = { name, startMs: tenths(startMs), durationMs: tenths(atMs - startMs), ok, status, note };
    this.#steps.push(step);
    this.emit({ kind: 'step', step });
  }
  /** Ends all that still run; the TEARDOWN has no note of theirs. */
  endOpen(atMs: number, { ok, note }: { readonly ok: boolean; readonly note: string | null }): void {
    for (const name of [...this.#began.keys()]) this.end(name, atMs, { ok, note: name === 'teardown' ? null : note });
  }
}

/** Ms, to a tenth. */
export const tenths = (ms: number): number => Math.round(ms * 10) / 10;
