import { encodeLiveFrame } from '../../contract/live-frame.ts';
import { JPEG_PICTURES, type LiveMessage, liveRequestSchema } from '../../contract/probe-api.ts';
import { LIVE_TIMEOUT_MS, type LiveEffect, LiveMachine } from '../../core/live/live-machine.ts';
import { readTarget } from '../../core/net/target.ts';
import { toCamera } from '../camera-way.ts';
import { drive, USER_AGENT } from '../drive.ts';
import { workOf } from './work.ts';

type Shown = Extract<LiveEffect, { kind: 'format' | 'picture' | 'ended' }>;

/** Views of one house; each holds a session at its camera. */
const MOST = { most: 16, many: 'live pictures' };

/** Draws a stream and hands its pictures on, until it is cancelled or ends. */
export const LIVE = workOf(liveRequestSchema, MOST, async (request, world, signal, out) => {
  const say = (message: LiveMessage): void => out.say(message);
  const target = readTarget(request.url, request.user, request.secret);
  if (!target.ok) return say({ kind: 'ended', message: target.error.note });
  const { url, credentials } = target.value;
  const machine = new LiveMachine({
    url,
    credentials,
    userAgent: USER_AGENT,
    pictureFormat: JPEG_PICTURES,
    cnonce: () => world.entropy.hex(8),
    ownSsrc: Number.parseInt(world.entropy.hex(4), 16),
  });
  const show = (effect: Shown): void => {
    if (effect.kind !== 'picture') return say(effect);
    const { accessUnit, isKeyFrame, takenUnixMs } = effect;
    out.show(encodeLiveFrame({ isKeyFrame, arrivedUnixMs: world.clock.unixMs(), takenUnixMs, accessUnit }));
  };
  await drive({
    machine,
    way: toCamera({ url, timeoutMs: LIVE_TIMEOUT_MS }),
    world,
    signal,
    what: 'the picture',
    onEffect: show,
  });
});
