import type { CommonEffect, CommonInput, HttpEffect, HttpInput, Machine } from '../machine/machine.ts';
import type { OnvifCause } from '../onvif/onvif-cause.ts';
import { asked, placeFrom, type ServicePlace } from '../onvif/service-place.ts';
import * as events from '../onvif/services/events.ts';
import { firstWords } from './first-words.ts';
import { createNumbers, type LineMoved, OnvifLine } from './onvif-line.ts';
import { ask, type Outcome, type Script } from './onvif-script.ts';
import { OnvifSession } from './onvif-session.ts';
import type { SessionOptions } from './session-types.ts';

type HearTimer = 'over';
export type HearInput = CommonInput<HearTimer> | HttpInput;

/** How listening went, all of it. */
export interface Heard {
  readonly seconds: number;
  /** Events that told of a change; how everything stood at first is none. */
  readonly changes: number;
  readonly motions: number;
  readonly firstMotionS: number | null;
  readonly kinds: readonly events.EventKind[];
  /** The subscription was gone before its time, and was taken anew. */
  readonly lost: number;
  readonly cause: OnvifCause | null;
  readonly note: string;
}

export type HearEvent =
  | { readonly kind: 'listening' }
  | { readonly kind: 'event'; readonly event: events.DeviceEvent; readonly atS: number }
  | { readonly kind: 'lost'; readonly note: string }
  | { readonly kind: 'heard'; readonly heard: Heard };
export type HearEffect = CommonEffect<HearTimer> | HttpEffect | HearEvent;

export interface HearOptions extends Omit<SessionOptions, 'unixMs'> {
  readonly seconds: number;
  readonly timeoutMs: number;
  readonly startedAtUnixMs: number;
}

/** How long the device may wait for something to happen before it answers: below the patience of whoever asks. */
const WAIT_S = 4;
const MOST_AT_ONCE = 50;
/** A device that answers at once, with nothing, is not asked again at once. */
const PULL_EVERY_MS = 200;
/** Of the subscription; it is renewed long before. */
const LIFE_S = 60;
const RENEW_BEFORE_S = 20;
/** A subscription that is lost so often is not taken again. */
const MOST_LOST = 3;
/** A device may say so much; more is counted and not told. */
const MOST_TOLD = 500;
const FAREWELL_TIMEOUT_MS = 400;

/** Listens to a device for a while: takes a subscription, fetches what happens, gives it back. */
export class HearMachine implements Machine<HearInput, HearEffect> {
  readonly #session: OnvifSession;
  readonly #line: OnvifLine<null>;
  readonly #farewell: OnvifLine<null>;
  readonly #told: HearEvent[] = [];
  #place: { readonly at: ServicePlace; readonly echo: string } | null = null;
  #endsMs = 0;
  #pulledMs = Number.NEGATIVE_INFINITY;
  #atMs = 0;
  #sinceMs: number | null = null;
  #changes = 0;
  #motions = 0;
  #firstMotionS: number | null = null;
  #kinds = new Set<events.EventKind>();
  #lost = 0;
  #count = 0;
  #failure: { readonly cause: OnvifCause; readonly note: string } | null = null;
  #isLeaving = false;
  #isOver = false;

  constructor(private readonly options: HearOptions) {
    const unixMs = (atMs: number): number => options.startedAtUnixMs + atMs;
    this.#session = new OnvifSession({ ...options, unixMs });
    const number = createNumbers();
    this.#line = new OnvifLine(this.#session, { name: 'hear', timeoutMs: options.timeoutMs, number });
    this.#farewell = new OnvifLine(this.#session, { name: 'farewell', timeoutMs: FAREWELL_TIMEOUT_MS, number });
  }

  begin(atMs: number): readonly HearEffect[] {
    this.#atMs = atMs;
    return this.#moved(this.#line.run(this.#script(), atMs));
  }

  handle(input: HearInput): readonly HearEffect[] {
    if (this.#isOver) return [];
    this.#atMs = input.atMs;
    switch (input.kind) {
      case 'responded':
      case 'failed':
        return this.#isLeaving ? this.#left(this.#farewell.handle(input)) : this.#moved(this.#line.handle(input));
      case 'timer':
        return this.#leave();
      case 'broken':
        this.#failure ??= { cause: 'closed', note: input.note };
        return input.isLast ? this.#end() : this.#leave();
      case 'cancel':
        return this.#leave();
    }
  }

  *#script(): Script<null> {
    const services = yield* firstWords(this.#session, () => this.options.startedAtUnixMs + this.#atMs);
    if (!services.ok) return this.#fail(services);
    if (!this.#session.places.has('events'))
      return this.#fail({ ok: false, cause: 'not-supported', note: 'It offers no event service.' });
    while (this.#lost <= MOST_LOST) {
      if (!(yield* this.#subscribe())) return null;
      yield* this.#pull();
      if (this.#failure) return null;
    }
    return this.#fail({
      ok: false,
      cause: 'fault',
      note: `Its subscription ended ${this.#lost} times before its time.`,
    });
  }

  #fail({ cause, note }: Extract<Outcome<unknown>, { ok: false }>): null {
    this.#failure = { cause, note };
    return null;
  }

  *#subscribe(): Script<boolean> {
    const taken = yield* ask(events.CREATE_PULL_POINT, LIFE_S);
    const place = taken.ok ? placeFrom(taken.value.url, this.#session.target) : null;
    if (!taken.ok || !place) {
      this.#fail(taken.ok ? { ok: false, cause: 'fault', note: 'Its subscription has no address.' } : taken);
      return false;
    }
    this.#place = { at: asked(place), echo: taken.value.echo };
    this.#endsMs = this.#atMs + 1000 * this.#lifeOf(taken.value.nowUnixMs, taken.value.endsUnixMs);
    if (this.#sinceMs === null) {
      this.#sinceMs = this.#atMs;
      this.#told.push({ kind: 'listening' });
    }
    return true;
  }

  /** By the device's own clock on both sides: its difference to ours takes no part. */
  #lifeOf(nowUnixMs: number | null, endsUnixMs: number | null): number {
    return nowUnixMs !== null && endsUnixMs !== null && endsUnixMs > nowUnixMs
      ? (endsUnixMs - nowUnixMs) / 1000
      : LIFE_S;
  }

  /** Until the subscription is lost, or nobody wants to hear any more. */
  *#pull(): Script<void> {
    for (;;) {
      const place = this.#place;
      if (!place) return;
      if (this.#endsMs - this.#atMs < RENEW_BEFORE_S * 1000) {
        const renewed = yield* ask(events.RENEW, LIFE_S, place);
        if (renewed.ok) this.#endsMs = this.#atMs + LIFE_S * 1000;
      }
      const pulled = yield* ask(
        events.PULL_MESSAGES,
        { waitS: WAIT_S, most: MOST_AT_ONCE },
        { ...place, patienceMs: WAIT_S * 1000, afterMs: Math.max(0, PULL_EVERY_MS - (this.#atMs - this.#pulledMs)) },
      );
      this.#pulledMs = this.#atMs;
      if (!pulled.ok) {
        this.#lost += 1;
        this.#told.push({ kind: 'lost', note: pulled.note });
        const isGone =
          pulled.cause === 'fault' || pulled.cause === 'timeout' || pulled.cause === 'closed' || pulled.cause === 'cut';
        if (!isGone) this.#fail(pulled);
        return;
      }
      for (const event of pulled.value.events) this.#take(event);
    }
  }

  #take(event: events.DeviceEvent): void {
    const atS = (this.#atMs - (this.#sinceMs ?? this.#atMs)) / 1000;
    this.#count += 1;
    if (this.#count <= MOST_TOLD) this.#told.push({ kind: 'event', event, atS });
    // how everything stood at first is no event (ONVIF Core §9.4: PropertyOperation)
    if (event.change === 'initialized' || event.change === 'deleted') return;
    this.#changes += 1;
    this.#kinds.add(event.kind);
    if (!events.isMotion(event.kind) || event.isOn === false) return;
    this.#motions += 1;
    this.#firstMotionS ??= atS;
  }

  #moved({ effects, result }: LineMoved<null>): readonly HearEffect[] {
    const told = this.#told.splice(0);
    const begins = told.some(({ kind }) => kind === 'listening');
    return [
      ...told,
      ...effects,
      ...(begins ? [{ kind: 'arm', timer: 'over', afterMs: this.options.seconds * 1000 } as const] : []),
      ...(result === undefined ? [] : this.#leave()),
    ];
  }

  /** The subscription is given back: the next client may need its place. */
  #leave(): readonly HearEffect[] {
    if (this.#isLeaving) return [];
    this.#isLeaving = true;
    const place = this.#place;
    const dropped = this.#line.drop();
    if (!place) return [...dropped, ...this.#end()];
    return [...dropped, ...this.#left(this.#farewell.run(unsubscribing(place), this.#atMs))];
  }

  #left({ effects, result }: LineMoved<null>): readonly HearEffect[] {
    return result === undefined ? effects : [...effects, ...this.#end()];
  }

  #end(): readonly HearEffect[] {
    this.#isOver = true;
    this.#session.close();
    const heard: Heard = {
      seconds: this.#sinceMs === null ? 0 : (this.#atMs - this.#sinceMs) / 1000,
      changes: this.#changes,
      motions: this.#motions,
      firstMotionS: this.#firstMotionS,
      kinds: [...this.#kinds],
      lost: this.#lost,
      cause: this.#failure?.cause ?? null,
      note: this.#failure?.note ?? '',
    };
    return [{ kind: 'heard', heard }, { kind: 'disarm', timer: 'over' }, { kind: 'done' }];
  }
}

function* unsubscribing(place: { readonly at: ServicePlace; readonly echo: string }): Script<null> {
  yield* ask(events.UNSUBSCRIBE, undefined, place);
  return null;
}
