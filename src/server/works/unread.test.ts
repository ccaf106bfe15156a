import { describe, expect, jest, test } from '@jest/globals';
import { object } from 'yup';
import { freshWorld } from '../../../tests/support/onvif-doors.ts';
import { createApp } from '../app.ts';
import { RunningWork } from './running-work.ts';
import { Unread } from './unread.ts';
import { workOf } from './work.ts';

describe('a page over a socket', () => {
  const goneAt = (waiting: readonly number[]): number => {
    const unread = new Unread(0);
    return waiting.findIndex((bytes, at) => unread.isGone(bytes, at * 1000));
  };
  test.each([
    { why: 'reads nothing', waiting: Array.from({ length: 20 }, (_, at) => 1 + at), at: 11 },
    { why: 'stops reading later', waiting: [0, 0, 5, 9, ...Array.from({ length: 16 }, () => 9)], at: 12 },
    { why: 'reads all', waiting: Array.from({ length: 60 }, () => 0), at: -1 },
    { why: 'is far behind, and reads', waiting: Array.from({ length: 60 }, (_, at) => 900 - 50 * (at % 9)), at: -1 },
  ])('that $why', ({ waiting, at }) => {
    expect(goneAt(waiting)).toBe(at);
  });
});

test('work whose lines nobody reads ends after ten seconds, and not before', async () => {
  jest.useFakeTimers({ now: 0, doNotFake: ['nextTick', 'queueMicrotask', 'setImmediate'] });
  try {
    const running = new RunningWork();
    const talk = workOf(object(), { most: 1, many: 'talks' }, (_, __, signal, out) => {
      const timer = setInterval(() => out.sendEvent({ text: 'x'.repeat(100_000) }), 100);
      return new Promise((resolve) =>
        signal.addEventListener('abort', () => {
          clearInterval(timer);
          resolve();
        }),
      );
    });
    const app = createApp({
      world: freshWorld(),
      network: 'simulated',
      demo: null,
      hosts: () => new Set(['127.0.0.1:1']),
      token: null,
      running,
      works: new Map([['talk', talk]]),
    });
    const answer = await app.request('http://127.0.0.1:1/api/talk', {
      method: 'POST',
      headers: { host: '127.0.0.1:1', 'x-clear-tap': '1', 'content-type': 'application/json' },
      body: '{}',
    });
    expect(answer.status).toBe(200);
    await jest.advanceTimersByTimeAsync(9000);
    expect(running.count(talk)).toBe(1);
    await jest.advanceTimersByTimeAsync(2500);
    expect(running.count(talk)).toBe(0);
  } finally {
    jest.useRealTimers();
  }
});
