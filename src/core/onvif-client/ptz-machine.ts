import type { Machine } from '../machine/machine.ts';
import * as ptz from '../onvif/services/ptz.ts';
import { HeadStatus } from './head-status.ts';
import type { Script } from './onvif-script.ts';
import { OnvifSession } from './onvif-session.ts';
import { type LineName, PtzLines } from './ptz-lines.ts';
import {
  type Did,
  dueOf,
  type Ended,
  NOTHING_DID,
  OrderQueue,
  OVERTAKEN,
  type UnderWay,
  underWay,
  type Waiting,
} from './ptz-orders.ts';
import { isMove, type Opening, opening, RUN_LIFE_S, type Said, saying, scriptOf } from './ptz-scripts.ts';
import { HeadStop, STOP_FOR_MS } from './ptz-stop.ts';
import type { HeadAbility, NumberedOrder, PtzEffect, PtzInput } from './ptz-types.ts';
import type { SessionOptions } from './session-types.ts';

export interface PtzOptions extends Omit<SessionOptions, 'unixMs'> {
  readonly timeoutMs: number;
  readonly startedAtUnixMs: number;
}

const TICK_MS = 50;
/** A continuous move is said again this often, and runs out by itself soon after it is not. */
const RENEW_MS = 600;
/** Whoever holds a key says so again and again; silence lets go. */
const HELD_MS = 3000;
/** A head begins a move within so long, if it is far from where it is to go. */
const BEGINS_WITHIN_MS = 450;
/** A head that rests is left at once; one that moves is stopped for as long as a stop is repeated. */
const FAREWELL_MS = STOP_FOR_MS + 500;
/** How long whoever drives it waits at most, once it is to end. */
export const PTZ_FAREWELL_MS = FAREWELL_MS + 500;
/**
 * Steers one head for as long as somebody wants to. What moves because of it is stopped before it ends, and a stop is said
 * until the head rests.
 */
export class PtzMachine implements Machine<PtzInput, PtzEffect> {
  readonly #session: OnvifSession;
  readonly #lines: PtzLines;
  #ability: HeadAbility | null = null;
  readonly #queue = new OrderQueue();
  #now: UnderWay | null = null;
  #held: { velocity: ptz.PtzVelocity; saidMs: number; sentMs: number | null; number: number } | null = null;
  /** It may move because of us: a run was sent, and no stop was seen to work since. */
  #mayMove = false;
  #stop: HeadStop | null = null;
  readonly #status = new HeadStatus();
  #atMs = 0;
  #leaving: Ended | null = null;
  #isOver = false;
  #effects: PtzEffect[] = [];

  constructor(private readonly options: PtzOptions) {
    const unixMs = (atMs: number): number => options.startedAtUnixMs + atMs;
    this.#session = new OnvifSession({ ...options, unixMs });
    this.#lines = new PtzLines(this.#session, options.timeoutMs, (...effects) => this.#emit(...effects));
  }

  begin(atMs: number): readonly PtzEffect[] {
    this.#atMs = atMs;
    this.#effects = [];
    const unixMs = (): number => this.options.startedAtUnixMs + this.#atMs;
    this.#run('steer', opening(this.#session, unixMs), this.#opened);
    return this.#effects;
  }

  handle(input: PtzInput): readonly PtzEffect[] {
    this.#effects = [];
    if (this.#isOver) return [];
    this.#atMs = input.atMs;
    switch (input.kind) {
      case 'asked':
        if (!this.#leaving) this.#take(input.asked);
        break;
      case 'responded':
      case 'failed':
        this.#lines.handle(input);
        break;
      case 'timer':
        if (input.timer === 'farewell') this.#end({ cause: null, note: 'It was not seen to stop.' });
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

  #emit(...effects: readonly PtzEffect[]): void {
    this.#effects.push(...effects);
  }
  #run(line: LineName, script: Script<Said>, done: (said: Said) => void): void {
    this.#lines.run(line, script, this.#atMs, done);
  }

  readonly #opened = ({ outcome }: Said): void => {
    if (!outcome.ok) return this.#end({ cause: outcome.cause, note: outcome.note });
    const { ability, presets, position, isMoving } = outcome.value as Opening; // what opening() gave
    this.#status.begin(position);
    this.#ability = ability;
    this.#emit({ kind: 'ready', ability, presets }, { kind: 'status', position, isMoving });
    this.#tick();
  };

  /** A newer wish takes the place of a move that is under way. */
  #take({ order, number }: NumberedOrder): void {
    switch (order.kind) {
      case 'run':
        this.#stop = null;
        if (this.#now && isMove(this.#now.order)) this.#giveUp(OVERTAKEN);
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

  #enqueue(asked: Waiting): void {
    for (const { number, note } of this.#queue.add(asked)) this.#did(number, { ...NOTHING_DID, ok: false, note });
    if (isMove(asked.order) && this.#now && isMove(this.#now.order)) this.#giveUp(OVERTAKEN);
  }
  #clearQueue(note: string): void {
    for (const number of this.#queue.clear()) this.#did(number, { ...NOTHING_DID, ok: false, note });
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
    this.#did(now.number, { ...NOTHING_DID, from, to: this.#status.position, ranMs, keptTimeout, ...did });
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
    if (this.#lines.isBusy('steer') || !this.#ability || this.#leaving) return;
    const { profile } = this.#ability;
    if (this.#held && !this.#now) {
      const { sentMs, velocity } = this.#held;
      if (sentMs !== null && this.#atMs - sentMs < RENEW_MS) return;
      this.#held.sentMs = this.#atMs;
      return this.#move(saying(ptz.CONTINUOUS_MOVE, { profile, velocity, timeoutS: RUN_LIFE_S }));
    }
    if (this.#now) return this.#renewRun(this.#now);
    if (this.#stop) return;
    const asked = this.#queue.take();
    if (!asked) return;
    const { order } = asked;
    this.#now = underWay(asked, this.#status.position, this.#atMs);
    const script = scriptOf(order, profile);
    if (isMove(order)) this.#move(script);
    else this.#run('steer', script, this.#steered);
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
    this.#status.isMoving = true;
    this.#run('steer', script, this.#steered);
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
    now.dueMs = dueOf(now, this.#atMs);
    if (now.dueMs !== null) return;
    this.#finish(now, now.order.kind === 'keepPreset' ? { token: String(value) } : {});
    this.#listPresets();
  }

  #listPresets(): void {
    if (!this.#ability || this.#leaving) return;
    this.#run('steer', saying(ptz.GET_PRESETS, this.#ability.profile), ({ outcome }) => {
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
            now.keptTimeout = this.#status.isMoving !== true;
          this.#beginStop();
        }
        return;
      default: {
        // it is there when it rests; who tells nothing is believed
        const isSeen = this.#status.toldMs > now.sentMs + BEGINS_WITHIN_MS && this.#status.isMoving === false;
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
    if (!stop || this.#lines.isBusy('stop') || !this.#ability) return;
    // a move that is still on its way would come after the stop: the first is said all the same
    if (this.#lines.isBusy('steer') && stop.times > 0) return;
    const step = stop.step(this.#atMs, {
      tellsNothing: this.#ability.tells === 'nothing',
      isMoving: this.#status.isMoving,
    });
    if (step === 'wait') return;
    if (step === 'rested') return this.#rested();
    if (step === 'does not rest') return this.#neverRested(stop.times);
    if (step === 'say, it was lost') this.#emit({ kind: 'stopLost', times: stop.times });
    stop.said(this.#atMs);
    this.#run('stop', saying(ptz.STOP, this.#ability.profile), () => this.#watchStop());
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
    if (!this.#ability || this.#ability.tells === 'nothing' || this.#lines.isBusy('status')) return;
    if (!this.#status.isDue(this.#atMs, this.#mayMove)) return;
    this.#status.asked(this.#atMs);
    this.#run('status', saying(ptz.GET_STATUS, this.#ability.profile), this.#answered);
  }
  readonly #answered = ({ outcome }: Said): void => {
    if (!outcome.ok) return;
    this.#status.told(outcome.value as ptz.PtzStatus); // of GET_STATUS
    this.#stop?.looked(this.#status.toldMs);
    const { position, isMoving } = this.#status;
    this.#emit({ kind: 'status', position, isMoving });
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
    this.#emit({ kind: 'arm', timer: 'farewell', afterMs: FAREWELL_MS });
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
      { kind: 'disarm', timer: 'farewell' },
      { kind: 'done' },
    );
  }
}
