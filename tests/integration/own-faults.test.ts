import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { parseStreamUrl } from '../../src/core/net/stream-url-parser.ts';
import type { ProbeReport } from '../../src/core/probe/probe-types.ts';
import { createRealFinder } from '../../src/server/adapters/real-finder.ts';
import { systemClock, systemEntropy } from '../../src/server/adapters/system.ts';
import { createTcpDialer } from '../../src/server/adapters/tcp-dialer.ts';
import { drive, type World } from '../../src/server/drive.ts';
import { underGuard } from '../../src/server/last-guard.ts';
import { Logins } from '../../src/server/logins.ts';
import type { Clock, Dialer } from '../../src/server/ports.ts';
import { LIVE } from '../../src/server/works/live-work.ts';
import { runProbe } from '../../src/server/works/run-probe.ts';
import { fakePackets } from '../support/fake-media.ts';
import { type FaultyCamera, startFaultyCamera } from '../support/faulty-camera.ts';
import { healthy } from '../support/scripted-server.ts';

// A fault of our own in any callback of a driver ends its probe or its view, and nothing else. The clock is asked in every
// callback, so one that throws when it is asked for the n-th time throws inside each of them in turn.

let camera: FaultyCamera;
const said = jest.spyOn(console, 'error').mockImplementation(() => {});
const uncaught: unknown[] = [];
const note = (error: unknown): void => void uncaught.push(error);
beforeAll(async () => {
  const packets = fakePackets({ fps: 15, groupFrames: 3, frames: 30, keyBytes: 3000, betweenBytes: 900 });
  camera = await startFaultyCamera({ script: healthy, packets });
  process.on('uncaughtException', note);
  process.on('unhandledRejection', note);
});
afterAll(async () => {
  process.off('uncaughtException', note);
  process.off('unhandledRejection', note);
  said.mockRestore();
  await camera.close();
});

const dialer = createTcpDialer({ allowPublic: false });
class Broken extends Error {
  override readonly name = 'Broken';
}

/** What counts its calls, and throws in one of them. */
function failing(at: number): { count: number; call(): void } {
  const counter = {
    count: 0,
    call: () => {
      counter.count += 1;
      if (counter.count === at) throw new Broken('on purpose');
    },
  };
  return counter;
}

const worldWith = (clock: Partial<Clock>, dials: Dialer = dialer): World => ({
  dialer: dials,
  finder: createRealFinder({ host: '127.0.0.1', port: 9 }),
  clock: { ...systemClock, ...clock },
  entropy: systemEntropy,
  logins: new Logins(systemClock, systemEntropy),
});

function probeIn(world: World, onEvent?: () => void, signal = new AbortController().signal): Promise<ProbeReport> {
  const parsed = parseStreamUrl(camera.url);
  if (!parsed.ok) throw new Error(camera.url);
  const run = {
    url: parsed.value.url,
    credentials: null,
    transport: 'tcp',
    seconds: 0.3,
    timeoutMs: 400,
    media: true,
  } as const;
  return runProbe(run, world, signal, onEvent);
}

async function closed(): Promise<void> {
  for (let waited = 0; waited < 2000 && camera.open() > 0; waited += 10)
    await new Promise((resolve) => setTimeout(resolve, 10));
  expect(camera.open()).toBe(0);
  expect(uncaught).toEqual([]);
}
/** A round of everything, and how often the failing thing is called in it. */
async function throwEverywhere(once: (counter: { call(): void }) => Promise<void>): Promise<number> {
  const counting = failing(-1);
  await once(counting);
  const { count } = counting;
  for (let from = 1; from <= count; from += 40)
    await Promise.all(Array.from({ length: Math.min(40, count - from + 1) }, (_, i) => once(failing(from + i))));
  await closed();
  return count;
}

test('a throw inside any callback of a probe ends that probe, with a report wherever one can be made', async () => {
  const outcomes: (string | null)[] = [];
  const count = await throwEverywhere(async (counter) => {
    const monotonicMs = (): number => {
      counter.call();
      return systemClock.monotonicMs();
    };
    const outcome = await probeIn(worldWith({ monotonicMs })).catch((error: unknown) => error);
    if (outcome instanceof Broken) return void outcomes.push('rejected');
    const { cause, findings } = outcome as ProbeReport; // runProbe resolves with nothing else
    outcomes.push(cause);
    if (cause === 'protocol-error') expect(findings[0]?.because).toMatch(/a fault of its own \(Broken\)/);
  });
  expect(count).toBeGreaterThan(12);
  expect(outcomes.filter((cause) => cause === 'protocol-error').length).toBeGreaterThan(count / 2);
  expect(outcomes.filter((cause) => cause === 'rejected').length).toBeLessThanOrEqual(2); // before there was a probe
}, 60_000);

test.each([
  { why: 'sending', at: 4 },
  { why: 'sending the farewell too', at: 2, always: true },
])('a socket that throws while $why ends the probe with a cause', async ({ at, always = false }) => {
  const counter = failing(at);
  const breaking: Dialer = {
    ...dialer,
    dial: async (address, events, limits) => {
      const connection = await dialer.dial(address, events, limits);
      return {
        ...connection,
        send: (bytes) => {
          counter.call();
          if (always && counter.count > at) throw new Broken('again');
          connection.send(bytes);
        },
      };
    },
  };
  const report = await probeIn(worldWith({}, breaking));
  expect(report).toMatchObject({ verdict: 'fail', cause: 'protocol-error' });
  expect(report.findings[0]?.because).toMatch(/a fault of its own \(Broken\)/);
  await closed();
});

test('a listener that throws ends the probe and nothing else', async () => {
  const counter = failing(5);
  const outcome = await probeIn(worldWith({}), counter.call).catch((error: unknown) => error);
  expect(outcome).toMatchObject({ cause: 'protocol-error' });
  await closed();
});

test('a throw inside any callback of a view ends that view', async () => {
  const count = await throwEverywhere(async (counter) => {
    const controller = new AbortController();
    const monotonicMs = (): number => {
      counter.call();
      return systemClock.monotonicMs();
    };
    const timer = setTimeout(() => controller.abort(), 300);
    const begin = LIVE.accept({ url: camera.url, user: null, secret: null });
    const out = { sendEvent: counter.call, sendFrame: counter.call };
    await begin(worldWith({ monotonicMs }), controller.signal, out, () => {}).catch(() => {}); // its route logs it
    clearTimeout(timer);
  });
  expect(count).toBeGreaterThan(12);
}, 60_000);

test('what a dialled line hands on may throw: the work of its signal ends, and nothing is left uncaught', async () => {
  const { signal } = new AbortController();
  const ended: unknown[] = [];
  const letGo = underGuard(signal, (error) => ended.push(error));
  const limits = { timeoutMs: 400, signal };
  const address = await dialer.resolve('127.0.0.1', Number(new URL(camera.url).port), limits);
  const events = { onData: failing(1).call, onEnd: () => {} };
  const connection = await dialer.dial(address, events, limits);
  connection.send(Buffer.from('OPTIONS * RTSP/1.0\r\nCSeq: 1\r\n\r\n'));
  for (let waited = 0; waited < 2000 && ended.length === 0; waited += 10)
    await new Promise((resolve) => setTimeout(resolve, 10));
  expect(ended).toEqual([expect.any(Broken)]);
  connection.close();
  letGo();
  await closed();
});

test('what a fault took with it never comes: a machine that waits for it is ended all the same', async () => {
  const told: string[] = [];
  const waiting = drive({
    // what follows the effect that throws is lost, the timer of the machine too
    machine: {
      begin: () => [{ kind: 'work' as const }, { kind: 'arm' as const, timer: 'late', afterMs: 10 }],
      handle: (input: { readonly kind: string }) => {
        told.push(input.kind);
        return [];
      },
    },
    transport: () => ({
      kinds: new Set(['work']),
      start: () => {},
      carryOut: () => {
        throw new Broken('on purpose');
      },
      close: () => told.push('closed'),
    }),
    world: worldWith({}),
    signal: new AbortController().signal,
    credentials: null,
    what: 'the work',
    onEffect: () => {},
  });
  await expect(waiting).rejects.toThrow('on purpose');
  expect(told).toEqual(['broken', 'broken', 'closed']);
});

test('a fault in an adapter itself ends the work that it serves, and no other; unguarded ones are logged, and the process goes on', () => {
  const guard = join(__dirname, '../../src/server/last-guard.ts');
  const script = `
    const { guardedBy, installLastGuard, underGuard } = await import(${JSON.stringify(guard)});
    installLastGuard();
    const ended = [];
    for (const name of ['probe', 'view', 'over']) {
      const { signal } = new AbortController();
      const letGo = underGuard(signal, (error) => ended.push(name + ': ' + error.message));
      setTimeout(guardedBy(signal)(() => { if (name !== 'probe') throw new Error(name + ' threw'); }), 10);
      if (name === 'over') letGo();
    }
    setTimeout(() => { throw new Error('thrown\\u001b[2J in a timer'); }, 10);
    Promise.reject(new Error('nobody waits'));
    setTimeout(() => console.log('still here; ended ' + ended), 60);
  `;
  const { stdout, stderr, status } = spawnSync(
    process.execPath,
    ['--import', 'tsx', '--input-type=module', '-e', script],
    {
      encoding: 'utf8',
      cwd: join(__dirname, '../..'),
    },
  );
  expect({ stdout, status }).toEqual({ stdout: 'still here; ended view: view threw\n', status: 0 });
  expect(stderr).toContain('thrown\\u001b[2J in a timer');
  expect(stderr).toContain('nobody waits');
  expect(stderr).toContain('over threw');
});
