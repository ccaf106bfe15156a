import type { ProbeEvent } from '../../contract/probe-api.ts';
import type { Credentials } from '../../core/auth/authorization.ts';
import type { StreamUrl } from '../../core/net/stream-url.ts';
import { type ProbeEffect, type ProbeInput, ProbeMachine, type ProbeTimer } from '../../core/probe/probe-machine.ts';
import type { ProbeReport } from '../../core/probe/probe-types.ts';
import type { TransportChoice } from '../../core/rtsp/client-types.ts';
import { CameraLine, GOODBYE_MS } from '../camera-line.ts';
import { logFault, underGuard } from '../last-guard.ts';
import { type Clock, type Dialer, DialFailure, type Entropy } from '../ports.ts';
import { createSafely, nameOfFault } from '../safely.ts';

export interface ProbeRun {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly transport: TransportChoice;
  readonly seconds: number;
  readonly timeoutMs: number;
  readonly media: boolean;
}

export interface ProbeWorld {
  readonly dialer: Dialer;
  readonly clock: Clock;
  readonly entropy: Entropy;
}

export const USER_AGENT = 'ClearTap/0.1';

/**
 * Drives one probe over real sockets: effects of the machine become bytes and timers, and what happens goes back in.
 * Resolves with the report. When `signal` aborts, TEARDOWN is said, its answer waited for no longer than half a second,
 * and the promise rejects with the signal's reason. A fault of ours ends the probe with a report too.
 */
export function runProbe(
  run: ProbeRun,
  world: ProbeWorld,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void = () => {},
): Promise<ProbeReport> {
  return new Promise((resolve, reject) => {
    if (signal.aborted) return reject(signal.reason);
    const drive = new ProbeDrive(run, world, signal, onEvent, { resolve, reject });
    underGuard(drive.broken, drive.start);
  });
}

/** A fault that comes again while the first is dealt with gives the goodbye up; a third one gives all up. */
const MAX_FAULTS = 2;

interface Outcome {
  resolve(report: ProbeReport): void;
  reject(reason: unknown): void;
}

class ProbeDrive {
  readonly #machine: ProbeMachine;
  readonly #line: CameraLine;
  readonly #startedMs: number;
  readonly #timers = new Map<ProbeTimer | 'goodbye', NodeJS.Timeout>();
  #isOver = false;
  #isCancelled = false;
  #faults = 0;

  constructor(
    private readonly run: ProbeRun,
    private readonly world: ProbeWorld,
    private readonly signal: AbortSignal,
    private readonly onEvent: (event: ProbeEvent) => void,
    private readonly outcome: Outcome,
  ) {
    const { clock, dialer, entropy } = world;
    this.#startedMs = clock.monotonicMs();
    this.#machine = new ProbeMachine({
      url: run.url,
      credentials: run.credentials,
      transport: run.transport,
      sampleMs: run.seconds * 1000,
      timeoutMs: run.timeoutMs,
      media: run.media,
      userAgent: USER_AGENT,
      cnonce: () => entropy.hex(8),
      ownSsrc: Number.parseInt(entropy.hex(4), 16),
      startedAtUnixMs: clock.unixMs(),
    });
    this.#line = new CameraLine({
      dialer,
      limits: { timeoutMs: run.timeoutMs, signal },
      now: this.#now,
      put: this.#put,
      safely: this.#safely,
    });
  }

  readonly start = (): void => {
    this.signal.addEventListener('abort', this.#cancel, { once: true });
    this.#safely(() => {
      for (const effect of this.#machine.begin(this.#now())) this.#carryOut(effect);
    });
    void this.#dial();
  };

  /** Something of ours threw: the probe ends with that as its cause. */
  readonly broken = (error: unknown): void => {
    if (this.#isOver) return;
    logFault(error);
    this.#faults += 1;
    if (this.#faults > MAX_FAULTS) {
      this.#finish();
      return this.outcome.reject(error);
    }
    const note = `Clear Tap met a fault of its own (${nameOfFault(error)}) and ended the probe. Its console says more.`;
    const isLast = this.#faults === MAX_FAULTS;
    this.#safely(() => this.#put({ kind: 'broken', note, isLast, atMs: this.#now() }));
  };
  readonly #safely = createSafely(this.broken);

  async #dial(): Promise<void> {
    try {
      const address = await this.#line.resolve(this.run.url.host, this.run.url.port);
      this.#safely(() => this.#put({ kind: 'resolved', atMs: this.#now(), note: address.note }));
      if (this.#isOver) return;
      if (await this.#line.dial(address)) this.#safely(() => this.#put({ kind: 'connected', atMs: this.#now() }));
    } catch (error) {
      if (!(error instanceof DialFailure)) return this.broken(error);
      const { probeCause: cause, message: note } = error;
      this.#safely(() => this.#put({ kind: 'dialFailed', atMs: this.#now(), cause, note }));
    }
  }

  readonly #now = (): number => this.world.clock.monotonicMs() - this.#startedMs;

  readonly #put = (input: ProbeInput): void => {
    if (this.#isOver) return;
    for (const effect of this.#machine.handle(input)) this.#carryOut(effect);
  };

  #carryOut(effect: ProbeEffect): void {
    switch (effect.kind) {
      case 'send':
      case 'openUdp':
      case 'sendDatagram':
      case 'close':
        return this.#line.carryOut(effect);
      case 'arm':
        return this.#arm(effect.timer, effect.afterMs, () =>
          this.#put({ kind: 'timer', timer: effect.timer, atMs: this.#now() }),
        );
      case 'disarm':
        return this.#disarm(effect.timer);
      case 'report':
        this.#finish();
        if (this.#isCancelled) return this.outcome.reject(this.signal.reason);
        this.outcome.resolve(effect.report);
        return this.onEvent(effect);
      default:
        this.onEvent(effect);
    }
  }

  #arm(timer: ProbeTimer | 'goodbye', afterMs: number, ring: () => void): void {
    this.#disarm(timer);
    this.#timers.set(
      timer,
      setTimeout(() => this.#safely(ring), afterMs),
    );
  }
  #disarm(timer: ProbeTimer | 'goodbye'): void {
    clearTimeout(this.#timers.get(timer));
    this.#timers.delete(timer);
  }

  /** The camera is told goodbye, and may take its time to answer, but not the person's. */
  readonly #cancel = (): void => {
    this.#isCancelled = true;
    this.#arm('goodbye', GOODBYE_MS, () => {
      this.#finish();
      this.outcome.reject(this.signal.reason);
    });
    this.#safely(() => this.#put({ kind: 'cancel', atMs: this.#now() }));
  };

  #finish(): void {
    this.#isOver = true;
    for (const timer of [...this.#timers.keys()]) this.#disarm(timer);
    this.signal.removeEventListener('abort', this.#cancel);
    this.#line.close();
  }
}
