import type { Credentials } from '../core/auth/authorization.ts';
import type { CommonEffect, CommonInput, Machine } from '../core/machine/machine.ts';
import { createDeepVeil } from '../core/machine/password-veil.ts';
import { logFault, underGuard } from './last-guard.ts';
import type { Logins } from './logins.ts';
import type { Clock, Dialer, Entropy, Finder } from './ports.ts';
import { createSafely, nameOfFault, type Safely } from './safely.ts';

/** What a machine is driven in. */
export interface World {
  readonly dialer: Dialer;
  readonly finder: Finder;
  readonly clock: Clock;
  readonly entropy: Entropy;
  /** Every login that a device did not accept, whatever it was for. */
  readonly logins: Logins;
}

export const USER_AGENT = 'ClearTap/0.1';

/** How long a farewell may take: a device that does not answer by then is left. */
const FAREWELL_MS = 500;
/** A fault that comes again while the first is dealt with gives the farewell up; a third one gives all up. */
const MAX_FAULTS = 2;
/** A machine that does not end this long after a fault, since what the fault took with it never comes, is ended. */
const ENDS_WITHIN_MS = 2000;

/** What a transport has of the drive that it serves. */
export interface TransportContext<Input> {
  readonly world: World;
  readonly signal: AbortSignal;
  /** From the machine's beginning. */
  readonly now: () => number;
  readonly put: (input: Input) => void;
  /** Every callback of a socket runs in it. */
  readonly safely: Safely;
  readonly broken: (error: unknown) => void;
}

/** The sockets of one machine: to a camera, or to many doors. Closing it closes all of them at once. */
export interface Transport<TransportEffect> {
  readonly kinds: ReadonlySet<string>;
  /** Once the machine has begun. */
  start(): void;
  carryOut(doing: TransportEffect): void;
  close(): void;
}

type SaidBy<Effect, TransportEffect> = Exclude<Effect, TransportEffect | CommonEffect<string>>;

export interface DriveOptions<Timer extends string, Input, TransportEffect, Effect extends { readonly kind: string }> {
  readonly machine: Machine<CommonInput<Timer> | Input, CommonEffect<Timer> | TransportEffect | Effect>;
  readonly transport: (context: TransportContext<Input>) => Transport<TransportEffect>;
  readonly world: World;
  readonly signal: AbortSignal;
  /** As whom it talks: whatever the device tells is told on without that password, and without any login in a URL. */
  readonly credentials: Credentials | null;
  /** Effects that are told as they are: a login that a device gave, for the vault. */
  readonly openly?: ReadonlySet<string>;
  /** How long a farewell may take, where it takes longer than that of others. */
  readonly farewellMs?: number;
  /** What the machine says beyond what is done for it. */
  readonly onEffect: (effect: SaidBy<Effect, TransportEffect>) => void;
  /** What a fault of ours is said to have ended: “the probe”. */
  readonly what: string;
  /** Given what puts words of whoever asked into the machine while it runs. */
  readonly onStart?: (put: (input: Input) => void, now: () => number) => void;
}

/**
 * Drives one machine over real sockets: its effects become bytes and timers, and what happens goes back in. Resolves when it
 * is done, or half a second after `signal` aborted. A fault of ours is told to the machine, which ends with it; rejects only
 * when that fails too.
 */
export function drive<
  Timer extends string,
  Input,
  TransportEffect extends { readonly kind: string },
  Effect extends { readonly kind: string },
>(options: DriveOptions<Timer, Input, TransportEffect, Effect>): Promise<void> {
  return new Promise((resolve, reject) => {
    if (options.signal.aborted) return resolve();
    new Drive(options, resolve, reject).start();
  });
}

/**
 * Drives a machine that ends with a report. Resolves with it; rejects with the reason of `signal` when it was given up: of
 * that nobody wants to hear the report.
 */
export async function driveToReport<
  Timer extends string,
  Input,
  TransportEffect extends { readonly kind: string },
  Effect extends { readonly kind: string },
  Report,
>(
  options: DriveOptions<Timer, Input, TransportEffect, Effect> & {
    /** `null` of what is no report. */
    readonly reportIn: (effect: SaidBy<Effect, TransportEffect>) => Report | null;
  },
): Promise<Report> {
  const { signal, reportIn, onEffect, what } = options;
  const found: Report[] = [];
  signal.throwIfAborted();
  await drive({
    ...options,
    onEffect: (effect) => {
      const report = reportIn(effect);
      if (report !== null) found.push(report);
      if (report === null || !signal.aborted) onEffect(effect);
    },
  });
  signal.throwIfAborted();
  const [report] = found;
  if (report === undefined) throw new Error(`${what}: it ended without a report`);
  return report;
}

class Drive<
  Timer extends string,
  Input,
  TransportEffect extends { readonly kind: string },
  Effect extends { readonly kind: string },
> {
  readonly #transport: Transport<TransportEffect>;
  readonly #veil: <T>(value: T) => T;
  readonly #startedMs: number;
  readonly #timers = new Map<string, NodeJS.Timeout>();
  readonly #unguard: () => void;
  #isOver = false;
  #faults = 0;

  constructor(
    private readonly options: DriveOptions<Timer, Input, TransportEffect, Effect>,
    private readonly resolve: () => void,
    private readonly reject: (reason: unknown) => void,
  ) {
    const { world, signal } = options;
    this.#veil = createDeepVeil(options.credentials);
    this.#startedMs = world.clock.monotonicMs();
    this.#unguard = underGuard(signal, this.broken);
    this.#transport = options.transport({
      world,
      signal,
      now: this.#now,
      put: this.#put,
      safely: this.#safely,
      broken: this.broken,
    });
  }

  start(): void {
    this.options.signal.addEventListener('abort', this.#cancel, { once: true });
    this.#safely(() => {
      for (const effect of this.options.machine.begin(this.#now())) this.#carryOut(effect);
    });
    this.options.onStart?.((input) => this.#safely(() => this.#put(input)), this.#now);
    this.#transport.start();
  }

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
    const withinMs = Math.max(ENDS_WITHIN_MS, this.options.farewellMs ?? 0);
    this.#arm('driver: fault', withinMs, () => this.broken(error));
    this.#safely(() => this.#put({ kind: 'broken', note, isLast, atMs: this.#now() }));
  };
  readonly #safely = createSafely(this.broken);

  readonly #now = (): number => this.options.world.clock.monotonicMs() - this.#startedMs;

  readonly #put = (input: CommonInput<Timer> | Input): void => {
    if (this.#isOver) return;
    for (const effect of this.options.machine.handle(input)) this.#carryOut(effect);
  };

  #carryOut(effect: CommonEffect<Timer> | TransportEffect | Effect): void {
    if (this.#isOver) return;
    if (isCommon<Timer>(effect)) return this.#serve(effect);
    // what a way names as its own is done there, and the rest is the machine's own
    if (this.#transport.kinds.has(effect.kind)) return this.#transport.carryOut(effect as TransportEffect);
    const own = effect as SaidBy<Effect, TransportEffect>;
    this.options.onEffect(this.options.openly?.has(effect.kind) ? own : this.#veil(own));
  }

  #serve(effect: CommonEffect<Timer>): void {
    switch (effect.kind) {
      case 'arm':
        return this.#arm(effect.timer, effect.afterMs, () =>
          this.#put({ kind: 'timer', timer: effect.timer, atMs: this.#now() }),
        );
      case 'disarm':
        return this.#disarm(effect.timer);
      case 'done':
        this.#finish();
        return this.resolve();
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

  /** The device is told to let go, and may take its time to answer, but not the person's. */
  readonly #cancel = (): void => {
    this.#arm('driver: farewell', this.options.farewellMs ?? FAREWELL_MS, () => {
      this.#finish();
      this.resolve();
    });
    this.#safely(() => this.#put({ kind: 'cancel', atMs: this.#now() }));
  };

  #finish(): void {
    this.#isOver = true;
    for (const timer of [...this.#timers.keys()]) this.#disarm(timer);
    this.options.signal.removeEventListener('abort', this.#cancel);
    this.#transport.close();
    this.#unguard();
  }
}

const COMMON: ReadonlySet<string> = new Set([
  'arm',
  'disarm',
  'done',
] satisfies readonly CommonEffect<string>['kind'][]);

const isCommon = <Timer extends string>(effect: { readonly kind: string }): effect is CommonEffect<Timer> =>
  COMMON.has(effect.kind);
