import type { Machine } from '../machine/machine.ts';
import * as ptz from '../onvif/services/ptz.ts';
import { HeadStop, STOP_FOR_MS } from './head-stop.ts';
import { createNumbers, type LineMoved, OnvifLine } from './onvif-line.ts';
import type { Script } from './onvif-script.ts';
import { OnvifSession, type SessionOptions } from './onvif-session.ts';
import { isMove, type Opening, opening, RUN_LIFE_S, type Said, saying, scriptOf } from './steer-scripts.ts';
import type { HeadAbility, NumberedOrder, SteerEffect, SteerEvent, SteerInput, SteerOrder } from './steer-types.ts';

export interface SteerOptions extends Omit<SessionOptions, 'unixMs'> {
  readonly timeoutMs: number;
  readonly startedAtUnixMs: number;
}

const TICK_MS = 50;
/** A continuous move is said again this often, and runs out by itself soon after it is not. */
const RENEW_MS = 600;
/** Whoever holds a key says so again and again; silence lets go. */
const HELD_MS = 3000;
/** How often it is asked where it looks, while it moves and while it rests. */
const ASK_MOVING_MS = 200;
const ASK_RESTING_MS = 1500;
/** A head begins a move within so long, if it is far from where it is to go. */
const BEGINS_WITHIN_MS = 450;
/** Less is the grain of its numbers. */
const STILL = 0.0006;
const TRY_WATCH_MS = 1500;
/** An order that goes somewhere is over when it rests, or after this. */
const ARRIVE_WITHIN_MS = 30_000;
/** A head that rests is left at once; one that moves is stopped for as long as a stop is repeated. */
const FAREWELL_MS = STOP_FOR_MS + 500;
/** How long whoever drives it waits at most, once it is to end. */
export const STEER_FAREWELL_MS = FAREWELL_MS + 500;
const STOP_TIMEOUT_MS = 2000;
/** Presets that are kept or removed wait for each other; moves do not. */
const MOST_WAITING = 8;

type Did = Omit<Extract<SteerEvent, { kind: 'did' }>, 'kind' | 'number'>;
type Ended = Pick<Extract<SteerEvent, { kind: 'ended' }>, 'cause' | 'note'>;
const NOTHING_DID: Did = { ok: true, note: '', ranMs: null, from: null, to: null, token: null, keptTimeout: null };

/** An order under way: what it waits for until it is over. */
interface UnderWay {
  readonly number: number;
  readonly order: Exclude<SteerOrder, { kind: 'run' | 'rest' }>;
  readonly from: ptz.PtzPosition | null;
  readonly sentMs: number;
  /** When the stop is due, or the look at whether it stopped. */
  dueMs: number | null;
  ranMs: number | null;
  keptTimeout: boolean | null;
  /** When a run was said last: it lives by itself for a moment only. */
  saidMs: number;
}

type Waiting = NumberedOrder & { readonly order: UnderWay['order'] };

/**
 * Steers one head for as long as somebody wants to. What moves because of it is stopped before it ends, and a stop is said
 * until the head rests.
 */
export class SteerMachine implements Machine<SteerInput, SteerEffect> {
  readonly #session: OnvifSession;
  readonly #steer: OnvifLine<Said>;
  readonly #stopper: OnvifLine<Said>;
  readonly #asker: OnvifLine<Said>;
  readonly #done = new Map<OnvifLine<Said>, (said: Said) => void>();
  #ability: HeadAbility | null = null;
  #queue: Waiting[] = [];
  #now: UnderWay | null = null;
  #held: { velocity: ptz.PtzVelocity; saidMs: number; sentMs: number | null; number: number } | null = null;
  /** It may move because of us: a run was sent, and no stop was seen to work since. */
  #mayMove = false;
  #stop: HeadStop | null = null;
  #position: ptz.PtzPosition | null = null;
  #isMoving: boolean | null = null;
  #askedMs = Number.NEGATIVE_INFINITY;
  #toldMs = Number.NEGATIVE_INFINITY;
  #atMs = 0;
  #leaving: Ended | null = null;
  #isOver = false;
  #effects: SteerEffect[] = [];

  constructor(private readonly options: SteerOptions) {
    const unixMs = (atMs: number): number => options.startedAtUnixMs + atMs;
    this.#session = new OnvifSession({ ...options, unixMs });
    const number = createNumbers();
    const { timeoutMs } = options;
    this.#steer = new OnvifLine(this.#session, { name: 'steer', timeoutMs, number });
    // a stop waits for no other answer
    this.#stopper = new OnvifLine(this.#session, {
      name: 'stop',
      timeoutMs: Math.min(timeoutMs, STOP_TIMEOUT_MS),
      number,
    });
    this.#asker = new OnvifLine(this.#session, { name: 'status', timeoutMs, number });
  }

  begin(atMs: number): readonly SteerEffect[] {
    this.#atMs = atMs;
    this.#effects = [];
    const unixMs = (): number => this.options.startedAtUnixMs + this.#atMs;
    this.#run(this.#steer, opening(this.#session, unixMs), this.#opened);
    return this.#effects;
  }

  handle(input: SteerInput): readonly SteerEffect[] {
    this.#effects = [];
    if (this.#isOver) return [];
    this.#atMs = input.atMs;
    switch (input.kind) {
      case 'asked':
        if (!this.#leaving) this.#take(input.asked);
        break;
      case 'told':
      case 'untold':
        for (const line of [this.#steer, this.#stopper, this.#asker]) this.#put(line, line.handle(input));
        break;
      case 'timer':
        if (input.timer === 'goodbye') this.#end({ cause: null, note: 'It was not seen to stop before it was left.' });
        else this.#tick();
        break;
      case 'broken':
        if (input.isLast) this.#end({ cause: 'closed', note: input.note });
        else this.#leave({ cause: 'closed', note: input.note });
        break;
      case 'cancel':
        this.#leave({ cause: null, note: '' });
    }
    return this.#effects;
  }

  #emit(...effects: readonly SteerEffect[]): void {
    this.#effects.push(...effects);
  }
  #run(line: OnvifLine<Said>, script: Script<Said>, done: (said: Said) => void): void {
    this.#done.set(line, done);
    this.#put(line, line.run(script, this.#atMs));
  }
  #put(line: OnvifLine<Said>, { effects, result }: LineMoved<Said>): void {
    this.#emit(...effects);
    if (result) this.#done.get(line)?.(result);
  }

  readonly #opened = ({ outcome }: Said): void => {
    if (!outcome.ok) return this.#end({ cause: outcome.cause, note: outcome.note });
    const { ability, presets, position, isMoving } = outcome.value as Opening; // what opening() gave
    this.#position = position;
    this.#ability = ability;
    this.#emit({ kind: 'ready', ability, presets }, { kind: 'status', position, isMoving });
    this.#tick();
  };

  /** A newer wish takes the place of a move that is under way. */
  #take({ order, number }: NumberedOrder): void {
    switch (order.kind) {
      case 'run':
        this.#stop = null;
        if (this.#now && isMove(this.#now.order)) this.#giveUp('Another move took its place.');
        this.#held = { velocity: order.velocity, saidMs: this.#atMs, sentMs: null, number };
        break;
      case 'rest':
        this.#held = null;
        this.#clearQueue('Stopped.');
        this.#giveUp('Stopped.');
        // whoever moved it: another page, another program, or nobody
        this.#mayMove = true;
        this.#stop = null;
        this.#beginStop();
        this.#did(number, NOTHING_DID);
        break;
      default:
        if (this.#held) {
          this.#held = null;
          this.#beginStop();
        }
        this.#enqueue({ order, number });
    }
    if (this.#ability) this.#next();
  }

  /** Of moves the newest counts; others wait for each other, a few of them. */
  #enqueue(asked: Waiting): void {
    const overtaken = isMove(asked.order) ? this.#queue.filter(({ order }) => isMove(order)) : [];
    this.#queue = this.#queue.filter((one) => !overtaken.includes(one));
    for (const { number } of overtaken)
      this.#did(number, { ...NOTHING_DID, ok: false, note: 'Another move took its place.' });
    if (this.#queue.length >= MOST_WAITING)
      return this.#did(asked.number, { ...NOTHING_DID, ok: false, note: 'Too many orders at once.' });
    this.#queue.push(asked);
    if (isMove(asked.order) && this.#now && isMove(this.#now.order)) this.#giveUp('Another move took its place.');
  }
  #clearQueue(note: string): void {
    for (const { number } of this.#queue) this.#did(number, { ...NOTHING_DID, ok: false, note });
    this.#queue = [];
  }

  #giveUp(note: string): void {
    if (!this.#now) return;
    const { number } = this.#now;
    this.#now = null;
    this.#did(number, { ...NOTHING_DID, ok: false, note });
  }
  #did(number: number, did: Did): void {
    this.#emit({ kind: 'did', number, ...did });
  }
  #finish(now: UnderWay, did: Partial<Did> = {}): void {
    const { from, ranMs, keptTimeout } = now;
    this.#now = null;
    this.#did(now.number, { ...NOTHING_DID, from, to: this.#position, ranMs, keptTimeout, ...did });
  }

  #tick(): void {
    if (this.#held && this.#atMs - this.#held.saidMs > HELD_MS) {
      this.#held = null;
      this.#beginStop();
    }
    this.#watchOrder();
    this.#watchStop();
    this.#next();
    if (this.#isOver) return;
    this.#askStatus();
    // a run by time ends when it is due, not with the next look
    const dueMs = this.#now?.order.kind === 'runFor' && this.#now.ranMs === null ? this.#now.dueMs : null;
    const afterMs = dueMs === null ? TICK_MS : Math.max(1, Math.min(TICK_MS, dueMs - this.#atMs));
    this.#emit({ kind: 'arm', timer: 'tick', afterMs });
  }

  /** The next thing to say on the line for moves, if it is free. */
  #next(): void {
    if (this.#steer.isBusy || !this.#ability || this.#leaving) return;
    const { profile } = this.#ability;
    if (this.#held && !this.#now) {
      const { sentMs, velocity } = this.#held;
      if (sentMs !== null && this.#atMs - sentMs < RENEW_MS) return;
      this.#held.sentMs = this.#atMs;
      return this.#move(saying(ptz.CONTINUOUS_MOVE, { profile, velocity, timeoutS: RUN_LIFE_S }));
    }
    if (this.#now) return this.#renewRun(this.#now);
    if (this.#stop) return;
    const asked = this.#queue.shift();
    if (!asked) return;
    const { number, order } = asked;
    this.#now = {
      number,
      order,
      from: this.#position,
      sentMs: this.#atMs,
      dueMs: null,
      ranMs: null,
      keptTimeout: null,
      saidMs: this.#atMs,
    };
    const script = scriptOf(order, profile);
    if (isMove(order)) this.#move(script);
    else this.#run(this.#steer, script, this.#steered);
  }

  /** A run by time goes out in slices, each of which ends by itself soon. */
  #renewRun(now: UnderWay): void {
    const { order } = now;
    if (order.kind !== 'runFor' || now.ranMs !== null || now.dueMs === null || !this.#ability) return;
    if (this.#atMs - now.saidMs < RENEW_MS || now.dueMs - this.#atMs < TICK_MS) return;
    now.saidMs = this.#atMs;
    this.#move(scriptOf(order, this.#ability.profile));
  }

  #move(script: Script<Said>): void {
    this.#mayMove = true;
    this.#isMoving = true;
    this.#run(this.#steer, script, this.#steered);
  }

  /** What came of a word on the line for moves. */
  readonly #steered = ({ outcome }: Said): void => {
    this.#stop?.overtaken();
    const now = this.#now;
    if (!outcome.ok) this.#refused(outcome.note);
    else if (now) this.#taken(now, outcome.value);
    this.#tick();
  };

  #refused(note: string): void {
    const isHead = this.#now ? isMove(this.#now.order) : this.#held !== null;
    if (!this.#now && this.#held) this.#did(this.#held.number, { ...NOTHING_DID, ok: false, note });
    this.#held = null;
    this.#giveUp(note);
    if (isHead) this.#beginStop();
  }

  #taken(now: UnderWay, value: unknown): void {
    switch (now.order.kind) {
      case 'runFor':
        now.dueMs ??= now.sentMs + now.order.ms;
        return;
      case 'tryTimeout':
        now.dueMs = this.#atMs + TRY_WATCH_MS;
        return;
      case 'keepPreset':
        this.#finish(now, { token: String(value) });
        return this.#listPresets();
      case 'removePreset':
        this.#finish(now);
        return this.#listPresets();
      default:
        now.dueMs = this.#atMs + ARRIVE_WITHIN_MS;
    }
  }

  #listPresets(): void {
    if (!this.#ability || this.#leaving) return;
    this.#run(this.#steer, saying(ptz.GET_PRESETS, this.#ability.profile), ({ outcome }) => {
      if (outcome.ok) this.#emit({ kind: 'presets', presets: outcome.value as readonly ptz.PtzPreset[] }); // of GET_PRESETS
      this.#next();
    });
  }

  #watchOrder(): void {
    const now = this.#now;
    if (!now || now.dueMs === null) return;
    const isDue = this.#atMs >= now.dueMs;
    switch (now.order.kind) {
      case 'runFor':
      case 'tryTimeout':
        if (now.ranMs !== null) {
          if (!this.#stop) this.#finish(now);
        } else if (isDue) {
          now.ranMs = this.#atMs - now.sentMs;
          if (now.order.kind === 'tryTimeout' && this.#ability?.tells !== 'nothing')
            now.keptTimeout = this.#isMoving !== true;
          this.#beginStop();
        }
        return;
      default: {
        // it is there when it rests; who tells nothing is believed
        const isSeen = this.#toldMs > now.sentMs + BEGINS_WITHIN_MS && this.#isMoving === false;
        const hasArrived = isSeen || this.#ability?.tells === 'nothing';
        if (!hasArrived && !isDue) return;
        this.#mayMove = !hasArrived;
        this.#finish(now, hasArrived ? {} : { ok: false, note: 'It did not come to rest.' });
        this.#beginStop();
      }
    }
  }

  #beginStop(): void {
    if (!this.#mayMove || this.#stop) return;
    this.#stop = new HeadStop();
    this.#watchStop();
  }
  #watchStop(): void {
    const stop = this.#stop;
    if (!stop || this.#stopper.isBusy || !this.#ability) return;
    // a move that is still on its way would come after the stop: the first is said all the same
    if (this.#steer.isBusy && stop.times > 0) return;
    const step = stop.step(this.#atMs, { tellsNothing: this.#ability.tells === 'nothing', isMoving: this.#isMoving });
    if (step === 'wait') return;
    if (step === 'rested') return this.#rested();
    if (step === 'does not rest') return this.#neverRested(stop.times);
    if (step === 'say, it was lost') this.#emit({ kind: 'stopLost', times: stop.times });
    stop.said(this.#atMs);
    this.#run(this.#stopper, saying(ptz.STOP, this.#ability.profile), () => this.#watchStop());
  }
  #neverRested(times: number): void {
    this.#stop = null;
    this.#emit({ kind: 'notStopped', times });
    if (this.#leaving) this.#end(this.#leaving);
  }
  #rested(): void {
    this.#stop = null;
    this.#mayMove = false;
    if (this.#leaving) this.#end(this.#leaving);
  }

  /** A head is asked more often while it moves, and not at all where it tells nothing. */
  #askStatus(): void {
    if (!this.#ability || this.#ability.tells === 'nothing' || this.#asker.isBusy) return;
    const everyMs = this.#mayMove ? ASK_MOVING_MS : ASK_RESTING_MS;
    if (this.#atMs - this.#askedMs < everyMs) return;
    this.#askedMs = this.#atMs;
    this.#run(this.#asker, saying(ptz.GET_STATUS, this.#ability.profile), this.#answered);
  }
  readonly #answered = ({ outcome }: Said): void => {
    if (!outcome.ok) return;
    const { position, isMoving } = outcome.value as ptz.PtzStatus; // of GET_STATUS
    const before = this.#position;
    this.#position = position;
    // where both tell, the position counts too: some say “idle” while they turn
    this.#isMoving = position && before ? isApart(position, before) || isMoving === true : isMoving;
    this.#toldMs = this.#askedMs;
    this.#stop?.looked(this.#askedMs);
    this.#emit({ kind: 'status', position, isMoving: this.#isMoving });
    this.#watchOrder();
    this.#watchStop();
  };

  #leave(ended: Ended): void {
    if (this.#leaving) return;
    this.#leaving = ended;
    this.#held = null;
    this.#clearQueue('Left.');
    this.#now = null;
    if (!this.#mayMove) return this.#end(ended);
    this.#emit({ kind: 'arm', timer: 'goodbye', afterMs: FAREWELL_MS });
    this.#beginStop();
    this.#tick();
  }

  #end({ cause, note }: Ended): void {
    if (this.#isOver) return;
    this.#isOver = true;
    this.#session.close();
    this.#emit(
      { kind: 'ended', cause, note, isStopped: !this.#mayMove },
      { kind: 'disarm', timer: 'tick' },
      { kind: 'disarm', timer: 'goodbye' },
      { kind: 'done' },
    );
  }
}

const isApart = (a: ptz.PtzPosition, b: ptz.PtzPosition): boolean =>
  Math.abs(a.pan - b.pan) > STILL ||
  Math.abs(a.tilt - b.tilt) > STILL ||
  Math.abs((a.zoom ?? 0) - (b.zoom ?? 0)) > STILL;
