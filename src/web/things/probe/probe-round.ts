import { CAMERAS_AT_ONCE, type CameraToProbe } from '../../../core/stations/tap/to-probe.ts';
import { roundAt, roundBegan, roundDone, roundEnded } from '../../store/probe-round-slice.ts';
import type { AppDispatch } from '../../store/store.ts';
import { lacksSecret } from '../../vault/lacks-secret.ts';
import type { Vault } from '../../vault/vault.ts';
import { cancelProbe, probeStream } from './probe-runner.ts';

/** The round that this page has running; sockets are no state for the store. */
let running: { cancelled: boolean; readonly streams: Set<string> } | null = null;

/**
 * Probes many cameras, a few at once and each camera's streams one after the other. A camera whose secret is not in reach is
 * left out and named: an attempt without it would only be counted against the account.
 */
export async function probeRound(
  asked: readonly CameraToProbe[],
  vault: Pick<Vault, 'has' | 'get'>,
  dispatch: AppDispatch,
): Promise<void> {
  if (running) return;
  const mine = { cancelled: false, streams: new Set<string>() };
  running = mine;
  const lacks = ({ camera, streams }: CameraToProbe): boolean =>
    streams.some((stream) => lacksSecret(camera, stream, vault));
  const waiting = asked.filter((one) => !lacks(one));
  dispatch(roundBegan({ total: waiting.length, leftOut: asked.filter(lacks).map(({ camera }) => camera.name) }));
  const work = async (): Promise<void> => {
    for (let one = waiting.shift(); one && !mine.cancelled; one = waiting.shift()) {
      const { camera, streams } = one;
      dispatch(roundAt(camera.id));
      for (const stream of streams) {
        if (mine.cancelled) break;
        mine.streams.add(stream.id);
        const secret = camera.account ? vault.get(camera.account.secretRef) : null;
        await probeStream({ camera, stream, secret, transport: 'auto' }, dispatch);
        mine.streams.delete(stream.id);
      }
      dispatch(roundDone(camera.id));
    }
  };
  try {
    await Promise.all(Array.from({ length: CAMERAS_AT_ONCE }, work));
  } finally {
    running = null;
    dispatch(roundEnded({ isCancelled: mine.cancelled }));
  }
}

/** Ends the round at once: what is dialled now is told goodbye, and nothing more is. */
export function cancelRound(): void {
  if (!running) return;
  running.cancelled = true;
  for (const streamId of running.streams) cancelProbe(streamId);
}
