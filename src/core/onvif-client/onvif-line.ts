import type { HttpEffect, HttpInput } from '../machine/machine.ts';
import type { ServiceName } from '../onvif/namespaces.ts';
import { MAX_ANSWER_BYTES } from '../onvif/onvif-limits.ts';
import type { Call, Outcome, Script } from './onvif-script.ts';
import type { OnvifSession } from './onvif-session.ts';
import type { Judged } from './session-types.ts';

/** One operation as it went, for the tape. */
export interface OnvifStep {
  readonly name: string;
  readonly service: ServiceName;
  readonly startMs: number;
  readonly durationMs: number;
  readonly ok: boolean;
  /** Requests that it took. */
  readonly requests: number;
  readonly note: string | null;
}

/** What came of an input, on one line. */
export interface LineMoved<Result> {
  readonly effects: readonly HttpEffect[];
  readonly steps: readonly OnvifStep[];
  /** The script ended, with this. */
  readonly result?: Result;
}

const STILL: LineMoved<never> = { effects: [], steps: [] };

/** Numbers of exchanges, over all lines of one machine. */
export const createNumbers = (): (() => number) => {
  let last = 0;
  return () => {
    last += 1;
    return last;
  };
};

/** Runs one script after the other over one kept connection. */
export class OnvifLine<Result> {
  #script: Script<Result> | null = null;
  #call: Call | null = null;
  #exchange: number | null = null;
  #startMs = 0;
  #requests = 0;

  constructor(
    private readonly session: OnvifSession,
    private readonly options: {
      readonly name: string;
      readonly timeoutMs: number;
      readonly number: () => number;
    },
  ) {}

  get isBusy(): boolean {
    return this.#script !== null;
  }

  run(script: Script<Result>, atMs: number): LineMoved<Result> {
    this.#script = script;
    return this.#on(script.next(), atMs, []);
  }

  /** An answer that is none of this line's changes nothing. */
  handle(input: HttpInput): LineMoved<Result> {
    if (input.exchange !== this.#exchange || !this.#call || !this.#script) return STILL;
    this.#exchange = null;
    if (input.kind === 'failed') this.session.unanswered(this.#call, input.certificate);
    if (input.kind === 'failed') return this.#over({ ok: false, cause: input.cause, note: input.note }, input.atMs);
    this.session.extraAnswers += input.extra;
    return this.#judged(this.session.judge(this.#call, input, input.atMs), input.atMs);
  }

  /** What is under way is given up; the script does not go on. */
  drop(): readonly HttpEffect[] {
    if (this.#call) this.session.unanswered(this.#call);
    this.#script = null;
    this.#call = null;
    this.#exchange = null;
    return [{ kind: 'dropLine', line: this.options.name }];
  }

  #judged(judged: Judged, atMs: number, before: readonly OnvifStep[] = []): LineMoved<Result> {
    if (judged.kind === 'over') return this.#over(judged.outcome, atMs, before);
    const { name: line, timeoutMs, number } = this.options;
    this.#exchange = number();
    this.#requests += 1;
    return {
      effects: [
        ...(judged.isFresh ? [{ kind: 'dropLine', line } as const] : []),
        {
          kind: 'ask',
          exchange: this.#exchange,
          line,
          request: judged.request,
          timeoutMs: timeoutMs + (this.#call?.patienceMs ?? 0),
          mostBytes: MAX_ANSWER_BYTES,
          mayRepeat: judged.mayRepeat,
          afterMs: this.#requests > 1 ? 0 : (this.#call?.afterMs ?? 0),
        },
      ],
      steps: before,
    };
  }

  #over(outcome: Outcome<unknown>, atMs: number, before: readonly OnvifStep[] = []): LineMoved<Result> {
    if (!this.#script || !this.#call) return STILL;
    const { name, service } = this.#call.operation;
    const step: OnvifStep = {
      name,
      service,
      startMs: this.#startMs,
      durationMs: atMs - this.#startMs,
      ok: outcome.ok,
      requests: this.#requests,
      note: outcome.ok ? null : outcome.note,
    };
    return this.#on(this.#script.next(outcome), atMs, [...before, step]);
  }

  #on(next: IteratorResult<Call, Result>, atMs: number, steps: readonly OnvifStep[]): LineMoved<Result> {
    if (next.done) {
      this.#script = null;
      this.#call = null;
      return { effects: [], steps, result: next.value };
    }
    this.#call = next.value;
    this.#startMs = atMs;
    this.#requests = 0;
    return this.#judged(this.session.begin(next.value, atMs), atMs, steps);
  }
}
