import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../tests/support/runs.ts';
import type { HeldLogin } from '../core/auth/login-ledger.ts';
import { Logins } from './logins.ts';

// Work that wants the same account at the same moment: cameras of one recorder, a page that opens picture and head at once.

const HOST = '10.77.4.30';
const ACCOUNT = { user: 'reader', password: 'Weir&Gate' };
const signal = new AbortController().signal;
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const newLogins = (): Logins => new Logins({ monotonicMs: () => Date.now() }, { hex: (digits) => 'a'.repeat(digits) });

beforeEach(() => {
  jest.useFakeTimers({ now: 0 });
});
afterEach(() => {
  jest.useRealTimers();
});

/** How a device takes a login: it is asked without one first, and answers each question after a while. */
interface Device {
  readonly takes: 'right' | 'wrong' | 'open';
  proofs: number;
}
interface Ended {
  readonly held: HeldLogin | null;
  readonly atMs: number;
}

interface Piece {
  readonly startMs: number;
  readonly answerMs: number;
  /** Its first question is one that is answered to everybody: that the proof went along tells nothing. */
  readonly answersOpenly: boolean;
}

/** Work as each of ours goes: it comes there, asks, logs in where it must, and goes on for a while. */
const workAt = (
  logins: Logins,
  device: Device,
  { startMs, answerMs, answersOpenly }: Piece,
  goesOnMs: number,
): Promise<Ended> =>
  pause(startMs).then(() =>
    logins.inTurn({ host: HOST, credentials: ACCOUNT }, signal, async (gate) => {
      await pause(answerMs);
      if (device.takes === 'open') gate.notAsked();
      else {
        const held = gate.begin();
        if (held) return { held, atMs: Date.now() };
        await pause(answerMs);
        if (answersOpenly) {
          gate.end('passed', 'GetServices');
          await pause(answerMs);
          const again = gate.begin();
          if (again) return { held: again, atMs: Date.now() };
          await pause(answerMs);
        }
        device.proofs += 1;
        gate.end(device.takes === 'right' ? 'accepted' : 'refused', 'rtsp');
      }
      const atMs = Date.now();
      await pause(goesOnMs);
      return { held: null, atMs };
    }),
  );

const works = fc.array(
  fc.record({ startMs: fc.nat(300), answerMs: fc.integer({ min: 1, max: 300 }), answersOpenly: fc.boolean() }),
  {
    minLength: 2,
    maxLength: 10,
  },
);

test('however much begins at once: a right password is never held, of a wrong one two are sent', async () => {
  await fc.assert(
    fc.asyncProperty(works, fc.constantFrom('right' as const, 'wrong' as const), async (all, takes) => {
      const logins = newLogins();
      const device: Device = { takes, proofs: 0 };
      const running = Promise.all(all.map((piece) => workAt(logins, device, piece, 60_000)));
      await jest.advanceTimersByTimeAsync(200_000);
      const ended = await running;
      expect(ended.filter(({ held }) => held === null)).toHaveLength(takes === 'right' ? all.length : 2);
      expect(device.proofs).toBe(takes === 'right' ? all.length : 2);
      for (const { held } of ended) expect(held?.why ?? 'refused').toBe('refused');
    }),
    runs(30),
  );
});

test('a password that was right a while ago, and was changed at the device since, is tried twice and not by all at once', async () => {
  const logins = newLogins();
  const piece = { startMs: 0, answerMs: 50, answersOpenly: false };
  const good = workAt(logins, { takes: 'right', proofs: 0 }, piece, 0);
  await jest.advanceTimersByTimeAsync(120_000);
  await good;
  const changed: Device = { takes: 'wrong', proofs: 0 };
  const running = Promise.all(Array.from({ length: 16 }, () => workAt(logins, changed, piece, 0)));
  await jest.advanceTimersByTimeAsync(30_000);
  expect(changed.proofs).toBe(2);
  expect((await running).filter(({ held }) => held?.why === 'refused')).toHaveLength(14);
});

test('at a device that asks for no login one waits for the first answer of another, and not for its end', async () => {
  const device: Device = { takes: 'open', proofs: 0 };
  const logins = newLogins();
  const running = Promise.all(
    [1, 2, 3].map(() => workAt(logins, device, { startMs: 0, answerMs: 100, answersOpenly: false }, 60_000)),
  );
  await jest.advanceTimersByTimeAsync(100_000);
  for (const { atMs } of await running) expect(atMs).toBeLessThan(500);
});

test('who comes to no answer is waited for a while, and what ended gives its turn back', async () => {
  const logins = newLogins();
  const turn = { host: HOST, credentials: ACCOUNT };
  const silent = logins.inTurn(turn, signal, () => pause(60_000));
  const began: number[] = [];
  const next = [1, 2].map(() => logins.inTurn(turn, signal, async () => void began.push(Date.now())));
  await jest.advanceTimersByTimeAsync(20_000);
  await Promise.all(next);
  expect(began[0]).toBeGreaterThan(2900);
  expect(began[0]).toBeLessThan(3200);
  expect((began[1] ?? 0) - (began[0] ?? 0)).toBeLessThan(100);
  await jest.advanceTimersByTimeAsync(60_000);
  await silent;
});

test('another account, another host and work without an account wait for nobody', async () => {
  const logins = newLogins();
  const silent = logins.inTurn({ host: HOST, credentials: ACCOUNT }, signal, () => pause(1000));
  const began: string[] = [];
  for (const turn of [
    { host: HOST, credentials: { ...ACCOUNT, user: 'other' } },
    { host: HOST, credentials: { ...ACCOUNT, password: 'other' } },
    { host: '10.77.4.31', credentials: ACCOUNT },
    { host: HOST, credentials: null },
  ])
    void logins.inTurn(turn, signal, async () => void began.push(turn.host));
  await jest.advanceTimersByTimeAsync(0);
  expect(began).toHaveLength(4);
  await jest.advanceTimersByTimeAsync(2000);
  await silent;
});

test('what was accepted goes on while another line of the same account is refused its first way to log in', () => {
  const logins = newLogins();
  const [picture, head] = [logins.gateFor(HOST, ACCOUNT), logins.gateFor(HOST, ACCOUNT)];
  expect(picture.begin()).toBeNull();
  picture.end('accepted', 'rtsp');
  expect(picture.begin()).toBeNull();
  expect(head.begin()).toBeNull();
  head.end('refused', 'GetNodes');
  // it tries its second way, though the answer to the picture is still awaited
  expect(head.begin()).toBeNull();
  picture.end('accepted', 'rtsp');
  expect(picture.begin()).toBeNull();
  head.end('refused', 'GetNodes');
  expect(head.begin()).toMatchObject({ why: 'refused', refused: 2 });
});
