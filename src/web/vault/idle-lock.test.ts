import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { lockWhenIdle } from './idle-lock.ts';

// A page as far as the lock needs one: keep-alives, and two clocks that need not agree.

const IDLE_MS = 60_000;
const clocks = { wall: 0, monotonic: 0 };
const page = new EventTarget();
let stop: () => void;
let locked = 0;

beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ['Date', 'performance'] });
  Object.assign(clocks, { wall: 1e12, monotonic: 5000 });
  jest.spyOn(Date, 'now').mockImplementation(() => clocks.wall);
  jest.spyOn(performance, 'now').mockImplementation(() => clocks.monotonic);
  Object.assign(globalThis, {
    document: page,
    addEventListener: page.addEventListener.bind(page),
    removeEventListener: page.removeEventListener.bind(page),
  });
  locked = 0;
  const vault = {
    get state() {
      return locked > 0 ? ('locked' as const) : ('open' as const);
    },
    lock: async () => {
      locked += 1;
      return true;
    },
  };
  stop = lockWhenIdle(vault, IDLE_MS);
});
afterEach(() => {
  stop();
  jest.restoreAllMocks();
  jest.useRealTimers();
});

/** Time goes by, as each clock tells it, and the page looks at it. */
function passes(wallMs: number, monotonicMs: number): void {
  clocks.wall += wallMs;
  clocks.monotonic += monotonicMs;
  jest.advanceTimersByTime(15_000);
}

test.each([
  { why: 'both clocks went on', wallMs: 61_000, monotonicMs: 61_000, locks: true },
  { why: 'a laptop slept, and the monotonic clock with it', wallMs: 61_000, monotonicMs: 1000, locks: true },
  { why: 'the wall clock was held back', wallMs: 0, monotonicMs: 61_000, locks: true },
  { why: 'the wall clock was set back by an hour', wallMs: -3_600_000, monotonicMs: 5000, locks: true },
  { why: 'the wall clock was set right by half a second', wallMs: -500, monotonicMs: 5000, locks: false },
  { why: 'it was not long yet', wallMs: 59_000, monotonicMs: 59_000, locks: false },
])('open secrets are looked after: $why', ({ wallMs, monotonicMs, locks }) => {
  passes(wallMs, monotonicMs);
  expect(locked > 0).toBe(locks);
});

test('a hand on the page keeps it open, and cannot wake what was idle too long', () => {
  passes(50_000, 50_000);
  page.dispatchEvent(new Event('keydown'));
  passes(50_000, 50_000);
  expect(locked).toBe(0);
  clocks.wall += 20_000;
  clocks.monotonic += 20_000;
  page.dispatchEvent(new Event('pointerdown'));
  expect(locked).toBe(1);
});
