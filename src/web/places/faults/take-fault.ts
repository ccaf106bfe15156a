import type { FaultToTake } from '../../../contract/fault-api.ts';
import { sayBreak } from '../../api/client.ts';
import { streamProbe } from '../../api/probe-stream.ts';
import { newId } from '../../store/new-id.ts';
import { probeBroken, probeCancelled, probeEventSeen, probeStarted } from '../../store/probe-slice.ts';
import type { AppDispatch } from '../../store/store.ts';

const STEP_TIMEOUT_MS = 2500;

/** A fault’s probe stands among the runs under a name that no stream has. */
export const runKeyOf = ({ id }: Pick<FaultToTake, 'id'>): string => `fault:${id}`;

/** Probes a simulated device of the gallery; nothing of it goes into the site. Returns what stops it. */
export function takeFault({ id, url, user, secret, seconds, paths }: FaultToTake, dispatch: AppDispatch): () => void {
  const controller = new AbortController();
  const streamId = runKeyOf({ id });
  dispatch(probeStarted({ streamId, probeId: newId('probe'), startedAtMs: performance.now() }));
  const request = {
    url,
    user,
    secret: user === null ? null : (secret ?? ''),
    seconds,
    timeoutMs: STEP_TIMEOUT_MS,
    media: true,
    transport: 'auto' as const,
    diagnose: true,
    paths: [...paths],
    onvifPort: null,
  };
  streamProbe(request, controller.signal, (event) => dispatch(probeEventSeen({ streamId, event }))).then(
    // an answer that ended without a report leaves it running
    () => dispatch(probeBroken({ streamId, message: 'The probe ended without a report. Probe it again.' })),
    (error: unknown) => {
      if (controller.signal.aborted) return dispatch(probeCancelled(streamId));
      return dispatch(probeBroken({ streamId, message: sayBreak(error, 'the probe') }));
    },
  );
  return () => controller.abort();
}
