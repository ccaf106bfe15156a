import type { PtzPosition } from '../onvif/services/ptz.ts';
import { isMove } from './ptz-scripts.ts';
import type { NumberedOrder, PtzEvent, PtzOrder } from './ptz-types.ts';

/** Presets that are kept or removed wait for each other; moves do not. */
const MOST_WAITING = 8;
const TRY_WATCH_MS = 1500;
/** An order that goes somewhere is over when it rests, or after this. */
const ARRIVE_WITHIN_MS = 30_000;
export const OVERTAKEN = 'Another move replaced it.';

/** What became of an order. */
export type Did = Omit<Extract<PtzEvent, { kind: 'did' }>, 'kind' | 'number'>;
export type Ended = Pick<Extract<PtzEvent, { kind: 'ended' }>, 'cause' | 'note'>;
export const NOTHING_DID: Did = {
  ok: true,
  note: '',
  ranMs: null,
  from: null,
  to: null,
  token: null,
  keptTimeout: null,
};

/** An order under way: what it waits for until it is over. */
export interface UnderWay {
  readonly number: number;
  readonly order: Exclude<PtzOrder, { kind: 'run' | 'rest' }>;
  readonly from: PtzPosition | null;
  readonly sentMs: number;
  /** When the stop is due, or the look at whether it stopped. */
  dueMs: number | null;
  ranMs: number | null;
  keptTimeout: boolean | null;
  /** When a run was said last: it lives by itself for a moment only. */
  saidMs: number;
}

export type Waiting = NumberedOrder & { readonly order: UnderWay['order'] };

export const underWay = ({ number, order }: Waiting, from: PtzPosition | null, atMs: number): UnderWay => ({
  number,
  order,
  from,
  sentMs: atMs,
  dueMs: null,
  ranMs: null,
  keptTimeout: null,
  saidMs: atMs,
});

/** When its stop is due, or the look at whether it arrived, ms; `null` for an order that is over once it is taken. */
export function dueOf({ order, sentMs, dueMs }: UnderWay, atMs: number): number | null {
  switch (order.kind) {
    case 'runFor':
      return dueMs ?? sentMs + order.ms;
    case 'tryTimeout':
      return atMs + TRY_WATCH_MS;
    case 'keepPreset':
    case 'removePreset':
      return null;
    default:
      return atMs + ARRIVE_WITHIN_MS;
  }
}

/** Orders that wait for the line: of moves the newest counts; others wait for each other, a few of them. */
export class OrderQueue {
  #waiting: readonly Waiting[] = [];

  /** @returns the orders that are given up for it, or itself where too many wait */
  add(asked: Waiting): readonly { readonly number: number; readonly note: string }[] {
    const overtaken = isMove(asked.order) ? this.#waiting.filter(({ order }) => isMove(order)) : [];
    const left = this.#waiting.filter((one) => !overtaken.includes(one));
    const isFull = left.length >= MOST_WAITING;
    this.#waiting = isFull ? left : [...left, asked];
    return [
      ...overtaken.map(({ number }) => ({ number, note: OVERTAKEN })),
      ...(isFull ? [{ number: asked.number, note: 'Too many commands at once.' }] : []),
    ];
  }
  take(): Waiting | undefined {
    const [first, ...rest] = this.#waiting;
    this.#waiting = rest;
    return first;
  }
  /** @returns the numbers of those that waited */
  clear(): readonly number[] {
    const numbers = this.#waiting.map(({ number }) => number);
    this.#waiting = [];
    return numbers;
  }
}
