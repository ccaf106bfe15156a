import { encodeLiveFrame } from '../../contract/live-frame.ts';
import { JPEG_PICTURES, type LiveMessage, type LiveRequest } from '../../contract/probe-api.ts';
import { LIVE_TIMEOUT_MS, type LiveEffect, LiveMachine } from '../../core/live/live-machine.ts';
import { readTarget } from '../../core/net/target.ts';
import { drive, USER_AGENT, type World } from '../drive.ts';
import { logFault } from '../last-guard.ts';
import { createSafely } from '../safely.ts';

export interface LiveSink {
  text(message: LiveMessage): void;
  binary(bytes: Uint8Array<ArrayBuffer>): void;
  close(): void;
}

type Shown = Extract<LiveEffect, { kind: 'format' | 'picture' | 'ended' }>;

/** Draws a stream and hands its pictures on, until `signal` aborts or it ends; then the page is let go. */
export async function runLiveView(
  request: LiveRequest,
  world: World,
  signal: AbortSignal,
  sink: LiveSink,
): Promise<void> {
  const target = readTarget(request.url, request.user, request.secret);
  if (!target.ok) {
    sink.text({ kind: 'ended', message: target.error.note });
    return sink.close();
  }
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
    if (effect.kind !== 'picture') return sink.text(effect);
    const { accessUnit, isKeyFrame, takenUnixMs } = effect;
    sink.binary(encodeLiveFrame({ isKeyFrame, arrivedUnixMs: world.clock.unixMs(), takenUnixMs, accessUnit }));
  };
  try {
    await drive({
      machine,
      host: url.host,
      port: url.port,
      timeoutMs: LIVE_TIMEOUT_MS,
      world,
      signal,
      what: 'the picture',
      onEffect: show,
    });
  } catch (error) {
    logFault(error); // it could not even be begun or ended in order: the page is let go all the same
  }
  createSafely(logFault)(() => sink.close());
}
