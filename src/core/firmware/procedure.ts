import type { ReflashGuide } from './guide.ts';

/** Which image is written: the new one, or the one of before. */
export type Direction = 'onward' | 'back';

/** Where somebody is who reflashes a camera with their hands. The card is ready: that was the bench. */
export type Phase =
  | 'power-off'
  | 'insert'
  | 'hold'
  | 'watch'
  | 'release'
  | 'writing'
  | 'reboot'
  | 'network'
  | 'check'
  | 'restore'
  | 'retry'
  | 'recover'
  | 'done'
  | 'stopped'
  | 'replaced';

/** What the person says or sees. `cut` is power that failed. */
export type Signal =
  | 'next'
  | 'taken'
  | 'usual'
  | 'dark'
  | 'writing'
  | 'stuck'
  | 'cut'
  | 'seen'
  | 'unseen'
  | 'loop'
  | 'picture'
  | 'no-picture'
  | 'again'
  | 'rescued'
  | 'give-up'
  | 'stop';

/** Why something went wrong, as far as the sign tells. */
export type Cause =
  | 'card-ignored'
  | 'no-sign'
  | 'released-early'
  | 'not-written'
  | 'power-cut'
  | 'wrong-image'
  | 'not-found'
  | 'no-radio'
  | 'no-stream'
  | 'sensor-differs'
  | 'loop'
  | 'silent-too-long';

interface Move {
  readonly to: Phase;
  readonly cause?: Cause;
}

/**
 * Every legal move and nothing else: a signal that a phase does not list is refused, and nothing changes. While it writes
 * nobody stops it: that would be a power cut.
 */
export const MOVES: Readonly<Record<Phase, Readonly<Partial<Record<Signal, Move>>>>> = {
  'power-off': { next: { to: 'insert' }, stop: { to: 'stopped' } },
  insert: { next: { to: 'hold' }, stop: { to: 'stopped' } },
  hold: { next: { to: 'watch' }, stop: { to: 'stopped' } },
  watch: {
    taken: { to: 'release' },
    usual: { to: 'retry', cause: 'card-ignored' },
    dark: { to: 'retry', cause: 'no-sign' },
    stuck: { to: 'recover', cause: 'power-cut' },
    cut: { to: 'retry', cause: 'no-sign' },
    stop: { to: 'stopped' },
  },
  release: {
    writing: { to: 'writing' },
    usual: { to: 'retry', cause: 'released-early' },
    dark: { to: 'writing' }, // many show nothing while they write
    stuck: { to: 'recover', cause: 'power-cut' },
    cut: { to: 'recover', cause: 'power-cut' },
  },
  writing: {
    next: { to: 'reboot' },
    usual: { to: 'reboot' },
    cut: { to: 'recover', cause: 'power-cut' },
    stuck: { to: 'recover', cause: 'power-cut' },
    'give-up': { to: 'recover', cause: 'silent-too-long' },
  },
  reboot: {
    usual: { to: 'network' },
    next: { to: 'network' },
    dark: { to: 'recover', cause: 'wrong-image' },
    stuck: { to: 'recover', cause: 'power-cut' },
    loop: { to: 'recover', cause: 'loop' },
    cut: { to: 'reboot' }, // written is written: it starts once more
  },
  network: {
    seen: { to: 'check' },
    // what is harmless is looked for first: a new address, a Wi-Fi key that went with the settings
    unseen: { to: 'network', cause: 'not-found' },
    loop: { to: 'recover', cause: 'loop' },
    'give-up': { to: 'recover', cause: 'no-radio' },
  },
  check: {
    picture: { to: 'restore' },
    'no-picture': { to: 'check', cause: 'no-stream' },
    'give-up': { to: 'recover', cause: 'sensor-differs' },
    unseen: { to: 'retry', cause: 'not-written' },
  },
  restore: { next: { to: 'done' } },
  retry: { again: { to: 'power-off' }, 'give-up': { to: 'recover' }, stop: { to: 'stopped' } },
  recover: { again: { to: 'power-off' }, rescued: { to: 'network' }, 'give-up': { to: 'replaced' } },
  done: {},
  stopped: {},
  replaced: {},
};
export const PHASES = Object.keys(MOVES) as readonly Phase[]; // keys of the table above
export const ENDS: ReadonlySet<Phase> = new Set(['done', 'stopped', 'replaced']);

/** [A] The same is not tried more often than this: then something else is wrong. */
export const MOST_ATTEMPTS = 3;

export interface Run {
  readonly direction: Direction;
  readonly phase: Phase;
  /** When this phase began: real time, ms of Unix. */
  readonly sinceMs: number;
  readonly beganMs: number;
  /** From 1. */
  readonly attempt: number;
  /** What went wrong last; `null` while all went as expected. */
  readonly cause: Cause | null;
  /** It began to write, and nobody has seen since that it works: it is not as before, whatever was said. */
  readonly hasWritten: boolean;
}

export const beginRun = (direction: Direction, atMs: number): Run => ({
  direction,
  phase: 'power-off',
  sinceMs: atMs,
  beganMs: atMs,
  attempt: 1,
  cause: null,
  hasWritten: false,
});

/** By the picture, or by running as it did before. */
const PROVES_IT_RUNS: ReadonlySet<Signal> = new Set(['picture', 'unseen']);
const HALF_WRITTEN: ReadonlySet<Cause> = new Set(['power-cut', 'silent-too-long']);
/** What went wrong is told as long as it is being mended. */
const causeKept = (phase: Phase, cause: Cause | null): Cause | null =>
  phase === 'retry' || phase === 'recover' ? cause : null;

/**
 * One signal further. A pair that is not in the table, and an end that is left, are refused: the run is given back as it is.
 * A camera that was written, and was not seen to work since, is not tried again as if nothing had happened and not left as
 * “as before”: every way on leads to its recovery.
 * @param atMs when it was said; a clock that went backwards counts as no time passed
 */
export function step(run: Run, signal: Signal, atMs: number): Run {
  const move = MOVES[run.phase][signal];
  if (!move) return run;
  const hasWritten =
    !(run.phase === 'check' && PROVES_IT_RUNS.has(signal)) &&
    (run.hasWritten || move.to === 'writing' || (move.cause !== undefined && HALF_WRITTEN.has(move.cause)));
  const isSpent = move.to === 'retry' && run.attempt >= MOST_ATTEMPTS;
  const isUnsafe = hasWritten && (move.to === 'retry' || move.to === 'stopped');
  const phase = isSpent || isUnsafe ? 'recover' : move.to;
  const begins = phase === 'power-off';
  return {
    ...run,
    phase,
    sinceMs: Math.max(atMs, run.sinceMs),
    attempt: begins ? run.attempt + 1 : run.attempt,
    // found after all: what was feared before is over
    cause: move.cause ?? (begins || phase !== run.phase ? causeKept(phase, run.cause) : run.cause),
    hasWritten,
  };
}

/** What can be said in a phase, in the order of the table. */
export const signalsIn = (phase: Phase): readonly Signal[] => Object.keys(MOVES[phase]) as readonly Signal[]; // its keys

export interface Wait {
  /** Nothing is to be done before, s; 0 waits for nothing. */
  readonly leastS: number;
  /** Longer than this is no longer as it should be, s. */
  readonly mostS: number;
}

/** How long a phase lasts by the guide; `null` where a person sets the pace. */
export function waitIn(phase: Phase, guide: ReflashGuide): Wait | null {
  switch (phase) {
    case 'power-off':
      return { leastS: guide.powerOffS, mostS: guide.powerOffS };
    case 'watch':
      return { leastS: guide.holdS, mostS: guide.signWithinS };
    case 'writing':
      return { leastS: guide.writeFromS, mostS: guide.writeToS };
    case 'reboot':
      return { leastS: 0, mostS: guide.rebootS };
    default:
      return null;
  }
}

/** When a phase turns, counted from its beginning, ms: where a sound or a vibration calls; `null` where nothing does. */
export function turnsAtMs(phase: Phase, guide: ReflashGuide): number | null {
  const wait = waitIn(phase, guide);
  if (!wait) return null;
  return (phase === 'reboot' ? wait.mostS : wait.leastS) * 1000;
}
