import type { DriveEffect, DriveInput, Machine } from '../core/machine/machine.ts';
import { CameraLine } from './camera-line.ts';
import { logFault, underGuard } from './last-guard.ts';
import { type Clock, type Dialer, DialFailure, type Entropy } from './ports.ts';
import { createSafely, nameOfFault } from './safely.ts';

/** What a machine is driven in. */
export interface World {
  readonly dialer: Dialer;
  readonly clock: Clock;
  readonly entropy: Entropy;
}

export const USER_AGENT = 'ClearTap/0.1';

/** How long a goodbye may take: a device that does not answer by then is left. */
const GOODBYE_MS = 500;
/** A fault that comes again while the first is dealt with gives the goodbye up; a third one gives all up. */
const MAX_FAULTS = 2;

type Own<Effect> = Exclude<Effect, DriveEffect<string>>;

export interface DriveOptions<Timer extends string, Effect extends { readonly kind: string }> {
  readonly machine: Machine<DriveInput<Timer>, DriveEffect<Timer> | Effect>;
  readonly host: string;
  readonly port: number;
  readonly timeoutMs: number;
  readonly world: World;
  readonly signal: AbortSignal;
  /** What the machine says beyond what is done for it. */
  readonly onEffect: (effect: Own<Effect>) => void;
  /** What a fault of ours is said to have ended: “the probe”. */
  readonly what: string;
}

/**
 * Drives one machine over real sockets: its effects become bytes and timers, and what happens goes back in. Resolves when it
 * is done, or half a second after `signal` aborted. A fault of ours is told to the machine, which ends with it; rejects only
 * when that fails too.
 */
export function drive<Timer extends string, Effect extends { readonly kind: string }>(
  options: DriveOptions<Timer, Effect>,
): Promise<void> {
  return new Promise((resolve, reject) => {
    if (options.signal.aborted) return resolve();
    const drive = new Drive(options, resolve, reject);
    underGuard(drive.broken, drive.start);
  });
}

class Drive<Timer extends string, Effect extends { readonly kind: string }> {
  readonly #line: CameraLine;
  readonly #startedMs: number;
  readonly #timers = new Map<string, NodeJS.Timeout>();
  #isOver = false;
  #faults = 0;

  constructor(
    private readonly options: DriveOptions<Timer, Effect>,
    private readonly resolve: () => void,
    private readonly reject: (reason: unknown) => void,
  ) {
    const { world, timeoutMs, signal } = options;
    this.#startedMs = world.clock.monotonicMs();
    this.#line = new CameraLine({
      dialer: world.dialer,
      limits: { timeoutMs, signal },
      now: this.#now,
      put: this.#put,
      safely: this.#safely,
    });
  }

  readonly start = (): void => {
    this.options.signal.addEventListener('abort', this.#cancel, { once: true });
    this.#safely(() => {
      for (const effect of this.options.machine.begin(this.#now())) this.#carryOut(effect);
    });
    void this.#dial();
  };

  /** Something of ours threw: the machine ends with that. */
  readonly broken = (error: unknown): void => {
    if (this.#isOver) return;
    logFault(error);
    this.#faults += 1;
    if (this.#faults > MAX_FAULTS) {
      this.#finish();
      return this.reject(error);
    }
    const note = `Clear Tap met a fault of its own (${nameOfFault(error)}) and ended ${this.options.what}. Its console says more.`;
    const isLast = this.#faults === MAX_FAULTS;
    this.#safely(() => this.#put({ kind: 'broken', note, isLast, atMs: this.#now() }));
  };
  readonly #safely = createSafely(this.broken);

  async #dial(): Promise<void> {
    const { host, port } = this.options;
    try {
      const address = await this.#line.resolve(host, port);
      this.#safely(() => this.#put({ kind: 'resolved', atMs: this.#now(), note: address.note }));
      if (!this.#isOver) await this.#connect(() => this.#line.dial(address));
    } catch (error) {
      this.#dialFailed(error);
    }
  }

  async #connect(dial: () => Promise<boolean>): Promise<void> {
    try {
      if (await dial()) this.#safely(() => this.#put({ kind: 'connected', atMs: this.#now() }));
    } catch (error) {
      this.#dialFailed(error);
    }
  }

  #dialFailed(error: unknown): void {
    if (!(error instanceof DialFailure)) return this.broken(error);
    const { probeCause: cause, message: note } = error;
    this.#safely(() => this.#put({ kind: 'dialFailed', atMs: this.#now(), cause, note }));
  }

  readonly #now = (): number => this.options.world.clock.monotonicMs() - this.#startedMs;

  readonly #put = (input: DriveInput<Timer>): void => {
    if (this.#isOver) return;
    for (const effect of this.options.machine.handle(input)) this.#carryOut(effect);
  };

  #carryOut(effect: DriveEffect<Timer> | Effect): void {
    if (this.#isOver) return;
    if (isForDriver<Timer, Effect>(effect)) return this.#serve(effect);
    this.options.onEffect(effect as Own<Effect>); // what is not for the driver is the machine's own
  }

  #serve(effect: DriveEffect<Timer>): void {
    switch (effect.kind) {
      case 'arm':
        return this.#arm(effect.timer, effect.afterMs, () =>
          this.#put({ kind: 'timer', timer: effect.timer, atMs: this.#now() }),
        );
      case 'disarm':
        return this.#disarm(effect.timer);
      case 'redial':
        return void this.#connect(() => this.#line.redial());
      case 'done':
        this.#finish();
        return this.resolve();
      default:
        return this.#line.carryOut(effect);
    }
  }

  #arm(timer: string, afterMs: number, ring: () => void): void {
    this.#disarm(timer);
    this.#timers.set(
      timer,
      setTimeout(() => this.#safely(ring), afterMs),
    );
  }
  #disarm(timer: string): void {
    clearTimeout(this.#timers.get(timer));
    this.#timers.delete(timer);
  }

  /** The device is told goodbye, and may take its time to answer, but not the person's. */
  readonly #cancel = (): void => {
    this.#arm('driver: goodbye', GOODBYE_MS, () => {
      this.#finish();
      this.resolve();
    });
    this.#safely(() => this.#put({ kind: 'cancel', atMs: this.#now() }));
  };

  #finish(): void {
    this.#isOver = true;
    for (const timer of [...this.#timers.keys()]) this.#disarm(timer);
    this.options.signal.removeEventListener('abort', this.#cancel);
    this.#line.close();
  }
}

const FOR_DRIVER: ReadonlySet<string> = new Set([
  'send',
  'openUdp',
  'sendDatagram',
  'redial',
  'close',
  'arm',
  'disarm',
  'done',
] satisfies readonly DriveEffect<string>['kind'][]);

const isForDriver = <Timer extends string, Effect extends { readonly kind: string }>(
  effect: DriveEffect<Timer> | Effect,
): effect is DriveEffect<Timer> => FOR_DRIVER.has(effect.kind);
