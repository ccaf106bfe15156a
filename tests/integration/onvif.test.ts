import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { OnvifReading } from '../../src/core/onvif/reading.ts';
import { runOnvif } from '../../src/server/works/run-onvif.ts';
import { ALDER_MILL_FLEET, type Fleet, startFleet } from '../../src/standins/fleet.ts';
import { ONVIF_GALLERY } from '../../src/standins/onvif/onvif-gallery.ts';
import type { Personality } from '../../src/standins/personality.ts';
import { connectThirdParty } from '../support/onvif-client.ts';
import { doorOf, listedDoor, plainWorld } from '../support/onvif-doors.ts';

/** One small stream each: what is encoded is looked at elsewhere. */
const light = (one: Personality): Personality => ({
  ...one,
  answerDelayMs: Math.min(one.answerDelayMs, 20),
  streams: one.streams.filter(({ label }) => label === 'sub' || one.streams.length === 1),
});

let fleet: Fleet;
beforeAll(async () => {
  fleet = await startFleet([...ALDER_MILL_FLEET, ...ONVIF_GALLERY].map(light));
});
afterAll(() => fleet.close());

const SPEAKING = [...ALDER_MILL_FLEET, ...ONVIF_GALLERY].filter(({ page }) => page?.onvif).map(({ name }) => name);

const read = (name: string, secret?: string): Promise<OnvifReading> =>
  runOnvif({ ...doorOf(fleet, name, secret), timeoutMs: 5000 }, plainWorld, new AbortController().signal);

test.each(SPEAKING)('a client that nobody of ours wrote drives %s', async (name) => {
  const { cam, call } = await connectThirdParty(listedDoor(fleet, name));
  const reading = await read(name);
  expect(reading.cause).toBeNull();
  const told = await call<{ model: string; serialNumber: string }>('getDeviceInformation');
  expect(reading.device).toMatchObject({ model: told.model, serial: told.serialNumber });
  expect(cam.profiles?.length).toBe(reading.profiles.length);
  const [profile] = reading.profiles;
  const { uri } = await call<{ uri: string }>('getStreamUri', { protocol: 'RTSP', profileToken: profile?.token });
  expect(new URL(uri).pathname).toBe(profile?.stream?.path);
  if (reading.ptz) {
    const head = fleet.headOf(name);
    await call('continuousMove', { profileToken: reading.ptz.profile, x: 0.5, y: 0, timeout: 5000 });
    await wait(400);
    await call('stop', { profileToken: reading.ptz.profile });
    expect(head?.view.panDeg).toBeGreaterThan(3);
    if (reading.ptz.node.absolute) {
      await call('absoluteMove', { profileToken: reading.ptz.profile, position: { x: 0.1, y: 0.7 } });
      await call('setPreset', { profileToken: reading.ptz.profile, presetName: 'north' });
      expect(head?.presets.at(-1)?.name).toBe('north');
    }
  }
  if (reading.events?.canPull) {
    await call('createPullPointSubscription');
    const pulled = await call<{ notificationMessage?: unknown }>('pullMessages', { messageLimit: 10 });
    expect(pulled.notificationMessage).toBeDefined();
    await call('unsubscribe');
  }
});

test('a clock that is years off is taken out; who does not is refused', async () => {
  const { host, port, user, password } = listedDoor(fleet, 'Linen stair');
  const reading = await read('Linen stair');
  expect(reading).toMatchObject({ cause: null, login: 'token', isOld: true });
  expect(reading.clock?.skewS).toBeLessThan(-7 * 365 * 86_400);
  // the same account, dated by an honest clock
  const honest = await import('../../src/core/onvif/ws-security.ts');
  const { writeEnvelope } = await import('../../src/core/onvif/operation.ts');
  const { GET_INFORMATION } = await import('../../src/core/onvif/services/device.ts');
  const security = honest.usernameToken(
    { user: user ?? '', password: password ?? '' },
    new Uint8Array(16),
    honest.createdAt(Date.now()),
  );
  const answer = await fetch(`http://${host}:${port}/onvif/device_service`, {
    method: 'POST',
    body: writeEnvelope({ operation: GET_INFORMATION, inner: '', to: '', security }),
  });
  expect(answer.status).toBe(400);
  expect(await answer.text()).toContain('not authorized');
});

test('inner addresses are told, and not followed', async () => {
  const reading = await read('Cider press');
  expect(reading.services.every(({ elsewhere }) => elsewhere === '192.168.10.1')).toBe(true);
  expect(reading.profiles.map(({ stream }) => stream)).toEqual([
    expect.objectContaining({ path: '/ch1/sub', elsewhere: '192.168.10.1' }),
  ]);
  expect(reading.sources).toEqual(['source-1']);
  expect(reading.recordings).toMatchObject({ recordings: 2 });
});

test('a device that answers twice is read all the same, each answer to its own question', async () => {
  const reading = await read('Wheel pit');
  expect(reading).toMatchObject({ cause: null, device: { model: 'F1' } });
  expect(reading.extraAnswers).toBeGreaterThan(3);
});

test.each([
  { name: 'Sluice rail', most: 3 },
  { name: 'Weir gate', most: 3 },
  { name: 'Wheel pit', most: 3 },
])('$name: a wrong secret is tried $most times at most, and told', async ({ name }) => {
  const reading = await read(name, 'wrong');
  expect(reading).toMatchObject({ cause: 'auth-failed', device: null, login: 'none' });
  expect(reading.answers).toBeLessThanOrEqual(2 + 3);
});
