import { encodeLiveFrame } from '../../contract/live-frame.ts';
import { JPEG_PICTURES, type LiveMessage, liveRequestSchema, type PlayedSound } from '../../contract/probe-api.ts';
import { type SoundFormat, soundCodecString } from '../../core/audio/sound-format.ts';
import type { ProofGate } from '../../core/auth/proof-gate.ts';
import { base64Of } from '../../core/base/bytes.ts';
import { LIVE_TIMEOUT_MS, type LiveEffect, LiveMachine } from '../../core/live/live-machine.ts';
import { readTarget } from '../../core/net/target.ts';
import { toCamera } from '../camera-transport.ts';
import { drive, USER_AGENT } from '../drive.ts';
import { leaveOf, workOf } from './work.ts';

type Shown = Extract<LiveEffect, { kind: 'format' | 'picture' | 'sound' | 'heard' | 'ended' }>;

const playedOf = (format: SoundFormat): PlayedSound => ({
  codec: format.codec,
  codecString: soundCodecString(format),
  rateHz: format.rateHz,
  channels: format.channels,
  config: format.codec === 'AAC' ? base64Of(format.config) : '',
});

/** Views of one house; each holds a session at its camera. */
const MOST = { most: 16, many: 'live pictures' };

/** Draws a stream and hands its pictures on, until it is cancelled or ends. */
export const LIVE = workOf(liveRequestSchema, MOST, async (request, world, signal, out) => {
  const say = (message: LiveMessage): void => out.sendEvent(message);
  const target = readTarget(request.url, request.user, request.secret, request.tunnel);
  if (!target.ok) return say({ kind: 'ended', message: target.error.note });
  const { url, credentials } = target.value;
  const machineOf = (gate: ProofGate): LiveMachine =>
    new LiveMachine({
      url,
      credentials,
      gate,
      knownFingerprint: request.knownFingerprint ?? null,
      userAgent: USER_AGENT,
      pictureFormat: JPEG_PICTURES,
      cnonce: () => world.entropy.hex(8),
      ownSsrc: Number.parseInt(world.entropy.hex(4), 16),
    });
  const show = (effect: Shown): void => {
    const arrivedUnixMs = world.clock.unixMs();
    switch (effect.kind) {
      case 'sound':
        return say({ ...effect, format: effect.format && playedOf(effect.format) });
      case 'heard':
        return out.sendFrame(
          encodeLiveFrame({
            isSound: true,
            isKeyFrame: true,
            arrivedUnixMs,
            takenUnixMs: null,
            accessUnit: effect.unit,
          }),
        );
      case 'picture': {
        const { accessUnit, isKeyFrame, takenUnixMs } = effect;
        return out.sendFrame(encodeLiveFrame({ isSound: false, isKeyFrame, arrivedUnixMs, takenUnixMs, accessUnit }));
      }
      default:
        return say(effect);
    }
  };
  await world.logins.inTurn({ host: url.host, credentials, leave: leaveOf(request) }, signal, (gate) =>
    drive({
      machine: machineOf(gate),
      transport: toCamera({ url, timeoutMs: LIVE_TIMEOUT_MS }),
      world,
      signal,
      credentials,
      what: 'the picture',
      onEffect: show,
    }),
  );
});
