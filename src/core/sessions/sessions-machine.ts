import type { Credentials } from '../auth/authorization.ts';
import type { ProofGate } from '../auth/proof-gate.ts';
import type { Machine } from '../machine/machine.ts';
import { fillUrl, type VeiledUrl } from '../net/path-login.ts';
import type { StreamUrl } from '../net/stream-url.ts';
import type { TransportChoice } from '../rtsp/client-types.ts';
import { OneSession, type OneSessionWish } from './one-session.ts';
import {
  type EffectOnFirst,
  MOST_SESSIONS,
  type SessionRefusal,
  type SessionsEffect,
  type SessionsInput,
  type SessionsReport,
} from './sessions-types.ts';

export interface SessionsOptions {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly gate: ProofGate;
  readonly knownFingerprint: string | null;
  readonly transport: TransportChoice;
  /** It stops there, whatever the camera would still grant. */
  readonly most: number;
  /** Of each answer, and of the first packet of each session. */
  readonly timeoutMs: number;
  readonly userAgent: string;
  readonly cnonce: () => string;
}

/** So long the packets of the first are counted, alone and at the end: two groups of pictures of most cameras [A]. */
const WATCH_MS = 2000;
/** Below this share of what it was, the first one suffers [A]. */
const SLOWER_BELOW = 0.6;
/** All TEARDOWNs together: a camera that leaves them unanswered is left. */
const TEARDOWN_MS = 1000;

/**
 * How many sessions a camera plays at once: takes one after the other until one is refused or `most` play, looks at what
 * that did to the first, and gives all of them back. One refusal ends it: no camera is asked a second time for what it
 * refused, so that none locks an account. It ends by itself: every wait has a timer.
 */
export class SessionsMachine implements Machine<SessionsInput, SessionsEffect> {
  readonly #veiled: VeiledUrl;
  readonly #most: number;
  readonly #sessions: OneSession[] = [];
  #effects: SessionsEffect[] = [];
  #stage: 'taking' | 'alone' | 'beside' | 'leaving' | 'over' = 'taking';
  #countedFrom = 0;
  #alonePerS: number | null = null;
  #besidePerS: number | null = null;
  #refusedWith: SessionRefusal | null = null;
  #opened = 0;
  #limit: number | null = null;
  #effectOnFirst: EffectOnFirst | null = null;

  constructor(private readonly options: SessionsOptions) {
    this.#veiled = fillUrl(options.url, options.credentials);
    this.#most = Math.min(MOST_SESSIONS, Math.max(1, Math.floor(options.most)));
  }

  begin(_atMs: number): readonly SessionsEffect[] {
    this.#effects = [];
    this.#takeSeat();
    return this.#effects;
  }

  handle(input: SessionsInput): readonly SessionsEffect[] {
    this.#effects = [];
    if (this.#stage === 'over') return [];
    switch (input.kind) {
      case 'fromSession': {
        const { session: number } = input;
        const session = this.#sessions[number - 1];
        if (session) this.#grant(number, session.hear(input.input), input.input.atMs);
        break;
      }
      case 'timer':
        this.#ring(input.timer, input.atMs);
        break;
      case 'broken':
        this.#refusedWith ??= { cause: 'protocol-error', status: null, note: input.note };
        if (input.isLast) this.#count();
        else this.#leave(input.atMs);
        break;
      case 'cancel':
        this.#leave(input.atMs);
        break;
    }
    return this.#effects;
  }

  #takeSeat(): void {
    const { credentials, transport, userAgent, cnonce, timeoutMs, gate, knownFingerprint } = this.options;
    this.#stage = 'taking';
    this.#sessions.push(
      new OneSession({ ...this.#veiled, credentials, gate, knownFingerprint, transport, userAgent, cnonce }, timeoutMs),
    );
    this.#effects.push({ kind: 'openSession', session: this.#sessions.length });
  }

  #ring(timer: Extract<SessionsInput, { kind: 'timer' }>['timer'], atMs: number): void {
    if (timer === 'watch') return this.#watched(atMs);
    if (timer === 'tearDown') return this.#count();
    const [what, text] = timer.split(' ');
    const number = Number(text);
    const session = this.#sessions[number - 1];
    if (!session) return;
    if (what === 'answer') this.#grant(number, session.answerIsLate(atMs), atMs);
    else if (what === 'keepAlive') this.#grant(number, session.keepAliveIsDue(atMs), atMs);
    else this.#grant(number, session.packetsAreLate(atMs), atMs);
  }

  #grant(number: number, wishes: readonly OneSessionWish[], atMs: number): void {
    const { timeoutMs } = this.options;
    for (const wish of wishes) {
      switch (wish.kind) {
        case 'effect':
          this.#effects.push({ kind: 'toSession', session: number, effect: wish.effect });
          break;
        case 'awaits':
          this.#effects.push({ kind: 'arm', timer: `answer ${number}`, afterMs: wish.afterMs });
          break;
        case 'answered':
          this.#effects.push({ kind: 'disarm', timer: `answer ${number}` });
          break;
        case 'keepAlive':
          this.#effects.push({ kind: 'arm', timer: `keepAlive ${number}`, afterMs: wish.afterMs });
          break;
        case 'plays':
          this.#effects.push({ kind: 'arm', timer: `packets ${number}`, afterMs: timeoutMs });
          break;
        case 'firstPacket':
          this.#effects.push({ kind: 'disarm', timer: `packets ${number}` });
          this.#seatHad(number, atMs);
          break;
        case 'left':
          for (const timer of ['answer', 'keepAlive', 'packets'] as const)
            this.#effects.push({ kind: 'disarm', timer: `${timer} ${number}` });
          this.#seatLost(number, atMs);
          break;
      }
    }
    // told to leave for want of packets: it is refused before its TEARDOWN is answered
    const session = this.#sessions[number - 1];
    if (
      this.#stage === 'taking' &&
      number === this.#sessions.length &&
      session &&
      !session.isPlaying &&
      session.refusal
    )
      this.#refused(number, session.refusal, atMs);
  }

  #seatHad(number: number, atMs: number): void {
    if (this.#stage !== 'taking' || number !== this.#sessions.length) return;
    this.#opened = number;
    this.#effects.push({ kind: 'session', session: number, refusal: null, atMs });
    if (number === 1) this.#watch('alone', atMs);
    else if (number === this.#most) this.#watch('beside', atMs);
    else this.#takeSeat();
  }

  #seatLost(number: number, atMs: number): void {
    if (this.#stage === 'leaving') {
      if (this.#sessions.every(({ isLeft }) => isLeft)) this.#count();
      return;
    }
    const lost = this.#sessions[number - 1];
    const isLast = number === this.#sessions.length;
    if (!lost || (this.#stage === 'beside' && this.#limit !== null)) return;
    const refusal = lost.refusal ?? { cause: 'closed' as const, status: null, note: 'The camera ended the session.' };
    this.#refused(isLast ? number : this.#sessions.length, refusal, atMs);
  }

  /** OneSession `number` was one too many: it was refused itself, or another one was ended for it. */
  #refused(number: number, refusal: SessionRefusal, atMs: number): void {
    this.#refusedWith = refusal;
    this.#effects.push({ kind: 'session', session: number, refusal, atMs });
    if (number > 1) this.#limit = number - 1;
    else if (refusal.cause === 'too-many-sessions') this.#limit = 0;
    if (number === 1 || this.#stage === 'alone') return this.#leave(atMs);
    this.#watch('beside', atMs);
  }

  #watch(stage: 'alone' | 'beside', atMs: number): void {
    this.#stage = stage;
    this.#countedFrom = this.#sessions[0]?.packets ?? 0;
    this.#effects.push({ kind: 'watching', atMs }, { kind: 'arm', timer: 'watch', afterMs: WATCH_MS });
  }

  #watched(atMs: number): void {
    const [first] = this.#sessions;
    if (!first) return;
    const perS = ((first.packets - this.#countedFrom) * 1000) / WATCH_MS;
    if (this.#stage === 'alone') {
      this.#alonePerS = perS;
      if (this.#most > 1) return this.#takeSeat();
      return this.#leave(atMs);
    }
    if (this.#stage !== 'beside') return;
    this.#besidePerS = perS;
    this.#effectOnFirst = effectOf(first.isPlaying, this.#alonePerS ?? 0, perS);
    this.#leave(atMs);
  }

  /** Every session that was had is given back. */
  #leave(atMs: number): void {
    if (this.#stage === 'leaving') return;
    this.#stage = 'leaving';
    this.#effects.push({ kind: 'disarm', timer: 'watch' }, { kind: 'arm', timer: 'tearDown', afterMs: TEARDOWN_MS });
    for (const [at, session] of this.#sessions.entries())
      if (!session.isLeft) this.#grant(at + 1, session.stop(atMs), atMs);
    if (this.#stage === 'leaving' && this.#sessions.every(({ isLeft }) => isLeft)) this.#count();
  }

  #count(): void {
    this.#stage = 'over';
    const report: SessionsReport = {
      limit: this.#limit,
      opened: this.#opened,
      most: this.#most,
      refusedWith: this.#refusedWith,
      firstAlonePerS: this.#alonePerS,
      firstBesidePerS: this.#besidePerS,
      effectOnFirst: this.#effectOnFirst,
      closed: this.#sessions.filter(({ isBidden }) => isBidden).length,
    };
    this.#effects.push({ kind: 'counted', report }, { kind: 'done' });
  }
}

function effectOf(isPlaying: boolean, alonePerS: number, besidePerS: number): EffectOnFirst {
  if (!isPlaying) return 'ended';
  if (besidePerS === 0 && alonePerS > 0) return 'stalled';
  return besidePerS < alonePerS * SLOWER_BELOW ? 'slower' : 'none';
}
