import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { WebSocket } from 'ws';
import { LIVE_PROTOCOL } from '../../src/contract/app-header.ts';
import { PtzMachine } from '../../src/core/onvif-client/ptz-machine.ts';
import type { PtzEvent, PtzOrder } from '../../src/core/onvif-client/ptz-types.ts';
import { drive } from '../../src/server/drive.ts';
import { toHttp } from '../../src/server/http-transport.ts';
import { talkOptions } from '../../src/server/works/run-onvif.ts';
import { type Fleet, startFleet } from '../../src/standins/fleet.ts';
import { WEIR_GATE, WHEEL_PIT } from '../../src/standins/onvif/onvif-gallery.ts';
import { BOOT_ROOM, SLUICE_RAIL } from '../../src/standins/personality.ts';
import { hear } from '../support/hear.ts';
import { doorOf, listedDoor, plainWorld } from '../support/onvif-doors.ts';
import { type RunningServer, startServer } from '../support/running-server.ts';

let fleet: Fleet;
beforeAll(async () => {
  fleet = await startFleet([SLUICE_RAIL, BOOT_ROOM, WEIR_GATE, WHEEL_PIT]);
});
afterAll(() => fleet.close());

type Did = Extract<PtzEvent, { kind: 'did' }>;

/** A hand on a head: what it asks, and what it hears. */
function steer(name: string) {
  const events: PtzEvent[] = [];
  const controller = new AbortController();
  const waiting: { readonly isIt: (event: PtzEvent) => boolean; readonly resolve: (event: PtzEvent) => void }[] = [];
  let put: (order: PtzOrder) => number = () => 0;
  let number = 0;
  const machine = new PtzMachine({
    ...talkOptions(doorOf(fleet, name), plainWorld),
    timeoutMs: 3000,
    startedAtUnixMs: Date.now(),
  });
  const over = drive({
    machine,
    transport: toHttp,
    world: plainWorld,
    signal: controller.signal,
    credentials: null,
    what: 'PTZ control',
    onEffect: (event: PtzEvent) => {
      events.push(event);
      for (const one of [...waiting]) if (one.isIt(event)) one.resolve(event);
    },
    onStart: (give, now) => {
      put = (order) => {
        number += 1;
        give({ kind: 'asked', asked: { number, order }, atMs: now() });
        return number;
      };
    },
  });
  const until = <K extends PtzEvent['kind']>(
    kind: K,
    isIt: (event: Extract<PtzEvent, { kind: K }>) => boolean = () => true,
  ) =>
    new Promise<Extract<PtzEvent, { kind: K }>>((resolve) => {
      const fits = (event: PtzEvent): boolean => event.kind === kind && isIt(event as Extract<PtzEvent, { kind: K }>);
      const seen = events.find(fits);
      if (seen) return resolve(seen as Extract<PtzEvent, { kind: K }>);
      waiting.push({ isIt: fits, resolve: (event) => resolve(event as Extract<PtzEvent, { kind: K }>) });
    });
  return {
    events,
    until,
    ask: (order: PtzOrder): Promise<Did> => {
      const mine = put(order);
      return until('did', (did) => did.number === mine);
    },
    say: (order: PtzOrder) => void put(order),
    leave: async () => {
      controller.abort();
      await over;
    },
  };
}

const headOf = (name: string) => {
  const head = fleet.headOf(name);
  if (!head) throw new Error(`${name} has no head`);
  return head;
};
const right = { pan: 0.5, tilt: 0, zoom: 0 };

test('a head that reports position: by angle, by time, to a preset and back', async () => {
  const hand = steer('Sluice rail');
  const { ability, presets } = await hand.until('ready');
  expect(ability.tells).toBe('position');
  expect(presets.map(({ name }) => name)).toEqual(['Sluice gate', 'Wheel']);
  const there = await hand.ask({ kind: 'goTo', position: { pan: 0.2, tilt: 0.8, zoom: 0 } });
  expect(there).toMatchObject({ ok: true });
  expect(headOf('Sluice rail').view.panDeg).toBeCloseTo(35, 0);
  const ran = await hand.ask({ kind: 'runFor', velocity: right, ms: 600 });
  expect(ran.ranMs).toBeGreaterThanOrEqual(595);
  // 0.5 × 60 °/s × 0.6 s of 350°
  expect((ran.to?.pan ?? 0) - (ran.from?.pan ?? 0)).toBeCloseTo((2 * 0.5 * 60 * ((ran.ranMs ?? 0) / 1000)) / 350, 1);
  const kept = await hand.ask({ kind: 'keepPreset', name: 'Rail', token: null });
  expect(kept.token).toBe('3');
  await hand.until('presets', (event) => event.presets.some(({ name }) => name === 'Rail'));
  await hand.ask({ kind: 'home' });
  expect(headOf('Sluice rail').view.panDeg).toBeCloseTo(0, 1);
  await hand.ask({ kind: 'goToPreset', token: '3' });
  expect(headOf('Sluice rail').view.panDeg).toBeGreaterThan(50);
  expect(await hand.ask({ kind: 'goToPreset', token: '99' })).toMatchObject({ ok: false });
  expect(await hand.ask({ kind: 'removePreset', token: '3' })).toMatchObject({ ok: true });
  expect(await hand.ask({ kind: 'tryTimeout', velocity: right })).toMatchObject({ keptTimeout: true });
  await hand.leave();
  expect(hand.events.at(-1)).toMatchObject({ kind: 'ended', isStopped: true });
});

test('a head that is running when the page goes away gets its stop', async () => {
  const hand = steer('Sluice rail');
  await hand.until('ready');
  hand.say({ kind: 'run', velocity: { pan: -0.5, tilt: 0, zoom: 0 } });
  await hand.until('status', ({ isMoving }) => isMoving === true);
  const startedMs = performance.now();
  await hand.leave();
  // it is left once it was seen to rest, and its stop goes out at once
  expect(performance.now() - startedMs).toBeLessThan(2500);
  const { panDeg } = headOf('Sluice rail').view;
  await wait(300);
  expect(headOf('Sluice rail').view.panDeg).toBe(panDeg);
});

test('a key that nobody holds any more lets go, though nobody said so', async () => {
  const hand = steer('Boot room');
  await hand.until('ready');
  hand.say({ kind: 'run', velocity: { pan: -0.2, tilt: 0, zoom: 0 } });
  await wait(3900);
  const { panDeg } = headOf('Boot room').view;
  await wait(300);
  expect(headOf('Boot room').view.panDeg).toBe(panDeg);
  expect(panDeg).toBeLessThan(-10);
  await hand.leave();
});

test('a stop that gets lost is said again, and told; a time-out that is not kept is found', async () => {
  const hand = steer('Weir gate');
  await hand.until('ready');
  for (let turn = 0; turn < 10; turn++)
    await hand.ask({ kind: 'runFor', velocity: { pan: turn % 2 ? 0.2 : -0.2, tilt: 0, zoom: 0 }, ms: 60 });
  expect(hand.events.filter(({ kind }) => kind === 'stopLost')).toHaveLength(1);
  expect(headOf('Weir gate').isMovingAt(Date.now())).toBe(false);
  expect(await hand.ask({ kind: 'tryTimeout', velocity: right })).toMatchObject({ keptTimeout: false });
  expect(headOf('Weir gate').isMovingAt(Date.now())).toBe(false);
  await hand.leave();
}, 30_000);

test.each([
  { why: 'the server is told to stop', end: (server: RunningServer) => void server.process.kill('SIGTERM') },
  { why: 'the page is gone', end: (_: RunningServer, page: WebSocket) => page.terminate() },
  {
    why: 'the page says what is no order',
    end: (_: RunningServer, page: WebSocket) => page.send('{"number":9,"order":{"kind":"fly"}}'),
  },
])('over the socket of a page: a running head is stopped when $why', async ({ end }) => {
  const server = await startServer('--discover-at', '127.0.0.1:9');
  const { host, port, user, password } = listedDoor(fleet, 'Sluice rail');
  const page = new WebSocket(`ws://127.0.0.1:${server.port}/api/steer`, [LIVE_PROTOCOL], {
    origin: `http://127.0.0.1:${server.port}`,
  });
  page.on('error', () => {});
  const heard = (isIt: (event: PtzEvent) => boolean) =>
    new Promise<void>((resolve) => page.on('message', (data) => isIt(JSON.parse(String(data))) && resolve()));
  const isReady = heard(({ kind }) => kind === 'ready');
  const moves = heard((event) => event.kind === 'status' && event.isMoving === true);
  page.on('open', () => page.send(JSON.stringify({ host, port, user, secret: password })));
  await isReady;
  const sign = headOf('Sluice rail').view.panDeg > 0 ? -1 : 1;
  page.send(JSON.stringify({ number: 1, order: { kind: 'run', velocity: { pan: 0.3 * sign, tilt: 0, zoom: 0 } } }));
  await moves;
  end(server, page);
  const startedMs = performance.now();
  while (headOf('Sluice rail').isMovingAt(Date.now()) && performance.now() - startedMs < 3000) await wait(10);
  // sooner than the time-out of its move would have stopped it
  expect(performance.now() - startedMs).toBeLessThan(600);
  server.process.kill('SIGTERM');
  await server.ended;
});

test('a device without a head says so', async () => {
  const hand = steer('Wheel pit');
  expect(await hand.until('ended')).toMatchObject({ cause: 'not-supported' });
});

test('a walker is heard; how everything stood at first is no event', async () => {
  const events = await hear(doorOf(fleet, 'Weir gate'), 5, 3000);
  const heard = events.at(-1);
  expect(heard).toMatchObject({
    kind: 'heard',
    heard: { lost: 0, cause: null, kinds: expect.arrayContaining(['motion', 'line']) },
  });
  expect(events.filter((event) => event.kind === 'event' && event.event.change === 'initialized')).toHaveLength(1);
  expect(heard?.kind === 'heard' && heard.heard.motions).toBeGreaterThanOrEqual(1);
});

test('a subscription that ends early is taken anew, and told', async () => {
  const events = await hear(doorOf(fleet, 'Wheel pit'), 5, 3000);
  expect(events.at(-1)).toMatchObject({ kind: 'heard', heard: { cause: null } });
  expect(events.filter(({ kind }) => kind === 'lost').length).toBeGreaterThanOrEqual(1);
});
