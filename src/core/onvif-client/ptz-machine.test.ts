import { expect, test } from '@jest/globals';
import { NO_GATE } from '../auth/proof-gate.ts';
import { bytesOf } from '../base/bytes.ts';
import { NAMESPACES } from '../onvif/namespaces.ts';
import { PTZ_FAREWELL_MS, PtzMachine } from './ptz-machine.ts';
import type { PtzEffect, PtzEvent, PtzOrder } from './ptz-types.ts';

// A head is played against the machine by a clock of the test: what it is told, and when.

interface Head {
  /** Whether a stop works. */
  readonly stops: (count: number) => boolean;
  /** It stops when the time is over that it was given. */
  readonly keepsTime?: boolean;
}
interface Responded {
  readonly atMs: number;
  readonly operation: string;
  readonly body: string;
}

const envelope = (body: string): string => `<e:Envelope xmlns:e="x"><e:Body>${body}</e:Body></e:Envelope>`;
const SPACE = '<XRange><Min>-1</Min><Max>1</Max></XRange><YRange><Min>-1</Min><Max>1</Max></YRange>';

/** Plays a head for so long; orders are put in at their times. */
function play(
  { stops, keepsTime = true }: Head,
  orders: readonly (readonly [number, PtzOrder])[],
  endMs: number,
  leaveMs = Number.POSITIVE_INFINITY,
) {
  const machine = new PtzMachine({
    target: { host: 'h', port: 80, path: '/d', isTls: false },
    credentials: null,
    gate: NO_GATE,
    alsoProve: [],
    knownFingerprint: null,
    userAgent: 't',
    nonce: () => bytesOf('n'),
    cnonce: () => 'c',
    timeoutMs: 1000,
    startedAtUnixMs: 0,
  });
  const told: Responded[] = [];
  const events: (PtzEvent & { readonly atMs: number })[] = [];
  const queue: { readonly atMs: number; readonly run: (atMs: number) => readonly PtzEffect[] }[] = [];
  let [now, isDone, stopCount, pan, movesUntil, timer] = [0, false, 0, 0, 0, 0];
  const isMoving = (): boolean => now < movesUntil;
  const answer = (operation: string, body: string): string => {
    switch (operation) {
      case 'GetSystemDateAndTime':
        return '';
      case 'GetServices':
        return ['media', 'ptz']
          .map(
            (name) =>
              `<Service><Namespace>${NAMESPACES[name as 'media']}</Namespace><XAddr>http://h/${name}</XAddr></Service>`,
          )
          .join('');
      case 'GetNodes':
        return `<PTZNode token="n"><SupportedPTZSpaces><ContinuousPanTiltVelocitySpace><URI>v</URI>${SPACE}</ContinuousPanTiltVelocitySpace></SupportedPTZSpaces></PTZNode>`;
      case 'GetProfiles':
        return '<Profiles token="p"><Name>p</Name><PTZConfiguration token="z"/></Profiles>';
      case 'GetStatus':
        if (isMoving()) pan += 0.01;
        return `<PTZStatus><Position><PanTilt x="${pan}" y="0"/></Position><MoveStatus><PanTilt>${isMoving() ? 'MOVING' : 'IDLE'}</PanTilt></MoveStatus></PTZStatus>`;
      case 'ContinuousMove':
        movesUntil = keepsTime ? now + 1000 * Number(/PT([\d.]+)S/.exec(body)?.[1]) : Number.POSITIVE_INFINITY;
        return '';
      case 'Stop':
        stopCount += 1;
        if (stops(stopCount)) movesUntil = now;
        return '';
      default:
        return '';
    }
  };
  const later = (atMs: number, run: (atMs: number) => readonly PtzEffect[]): void => {
    queue.push({ atMs, run });
    queue.sort((a, b) => a.atMs - b.atMs);
  };
  const take = (effects: readonly PtzEffect[]): void => {
    for (const effect of effects) {
      if (effect.kind === 'ask') {
        const { body } = effect.request;
        const operation = /<\w+:Body><(\w+)/.exec(body)?.[1] ?? '';
        told.push({ atMs: now, operation, body });
        const text = envelope(`<${operation}Response>${answer(operation, body)}</${operation}Response>`);
        const { exchange } = effect;
        later(now + 5, (atMs) =>
          machine.handle({
            kind: 'responded',
            exchange,
            answer: {
              status: 200,
              headers: [{ name: 'content-type', value: 'application/soap+xml' }],
              body: bytesOf(text),
              staysOpen: true,
            },
            extra: 0,
            atMs,
          }),
        );
      } else if (effect.kind === 'arm' && effect.timer === 'tick') {
        timer += 1;
        const own = timer;
        later(now + effect.afterMs, (atMs) =>
          own === timer ? machine.handle({ kind: 'timer', timer: 'tick', atMs }) : [],
        );
      } else if (effect.kind === 'arm')
        later(now + effect.afterMs, (atMs) => machine.handle({ kind: 'timer', timer: effect.timer, atMs }));
      else if (effect.kind === 'done') isDone = true;
      else if (effect.kind !== 'disarm' && effect.kind !== 'dropLine') events.push({ ...effect, atMs: now });
    }
  };
  take(machine.begin(0));
  for (const [at, [atMs, order]] of orders.entries())
    later(atMs, (when) => machine.handle({ kind: 'asked', asked: { number: at + 1, order }, atMs: when }));
  if (Number.isFinite(leaveMs)) later(leaveMs, (atMs) => machine.handle({ kind: 'cancel', atMs }));
  for (let next = queue.shift(); next && !isDone && next.atMs <= endMs; next = queue.shift()) {
    now = next.atMs;
    take(next.run(now));
  }
  return { told, events, isDone, now, of: (operation: string) => told.filter((one) => one.operation === operation) };
}

const velocity = { pan: 0.5, tilt: 0, zoom: 0 };
const ALWAYS = { stops: () => true };

test('Stop says Stop, also where this page moved nothing', () => {
  const { of } = play(ALWAYS, [[500, { kind: 'rest' }]], 3000);
  expect(of('Stop')).toHaveLength(1);
  expect(of('Stop')[0]?.atMs).toBe(500);
});

test('a run of twenty seconds goes out in slices that end by themselves, and ends in time', () => {
  const { of, events } = play(ALWAYS, [[500, { kind: 'runFor', velocity, ms: 20_000 }]], 25_000);
  const runs = of('ContinuousMove');
  expect(runs.length).toBeGreaterThan(25);
  for (const { body } of runs) expect(Number(/PT([\d.]+)S/.exec(body)?.[1])).toBeLessThanOrEqual(1.5);
  // no gap in which it would have stopped
  for (const [at, { atMs }] of runs.slice(1).entries()) expect(atMs - (runs[at]?.atMs ?? 0)).toBeLessThan(1500);
  const did = events.find((event) => event.kind === 'did');
  expect(did).toMatchObject({ ok: true });
  expect(did?.kind === 'did' && Math.abs((did.ranMs ?? 0) - 20_000)).toBeLessThanOrEqual(60);
});

test('a stop that does not work is repeated for ten seconds, and then a person is told', () => {
  const { of, events } = play(
    { stops: () => false, keepsTime: false },
    [
      [500, { kind: 'run', velocity }],
      [900, { kind: 'rest' }],
    ],
    30_000,
  );
  const stops = of('Stop');
  expect(stops.length).toBeGreaterThan(5);
  expect((stops.at(-1)?.atMs ?? 0) - (stops[0]?.atMs ?? 0)).toBeGreaterThan(8000);
  expect((stops.at(-1)?.atMs ?? 0) - (stops[0]?.atMs ?? 0)).toBeLessThanOrEqual(10_000);
  expect(events.filter(({ kind }) => kind === 'notStopped')).toHaveLength(1);
});

test.each([
  { why: 'rests at the fourth stop', stops: (count: number) => count >= 4, isStopped: true },
  { why: 'never rests', stops: () => false, isStopped: false },
])('a page that goes away leaves a head that $why only when it rests, or after ten seconds', ({ stops, isStopped }) => {
  const hand = play({ stops, keepsTime: false }, [[500, { kind: 'run', velocity }]], 60_000, 700);
  expect(hand.isDone).toBe(true);
  expect(hand.events.at(-1)).toMatchObject({ kind: 'ended', isStopped });
  expect(hand.now).toBeLessThanOrEqual(700 + PTZ_FAREWELL_MS);
  if (!isStopped) expect(hand.now).toBeGreaterThan(700 + 10_000 - 500);
});

test('of a thousand orders the newest move counts, and a handful goes out', () => {
  const orders = Array.from(
    { length: 1000 },
    (_, at) => [500 + at / 100, { kind: 'goTo', position: { pan: at / 1000, tilt: 0, zoom: null } }] as const,
  );
  const { of, events } = play(ALWAYS, orders, 40_000);
  expect(of('AbsoluteMove').length).toBeLessThanOrEqual(12);
  expect(of('AbsoluteMove').at(-1)?.body).toContain('x="0.999"');
  // each was answered: none is left waiting
  expect(events.filter(({ kind }) => kind === 'did')).toHaveLength(1000);
});
