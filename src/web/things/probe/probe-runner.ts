import { MOST_HINTED_PATHS, type ProbeRequest } from '../../../contract/probe-api.ts';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { plainUrlOf } from '../../../core/document/stream-address.ts';
import { knownFingerprint } from '../../../core/evidence/known-certificate.ts';
import { probeRecord } from '../../../core/evidence/measured-records.ts';
import { onvifPortOf } from '../../../core/evidence/onvif-port.ts';
import { pathHints } from '../../../core/evidence/path-hints.ts';
import { SAMPLE_S } from '../../../core/probe/sample-lengths.ts';
import type { TransportChoice } from '../../../core/rtsp/client-types.ts';
import { ServerRefused, sayBreak } from '../../api/client.ts';
import { endSample, streamProbe } from '../../api/probe-stream.ts';
import { newId } from '../../store/new-id.ts';
import { probeBroken, probeCancelled, probeEventSeen, probeStarted } from '../../store/probe-slice.ts';
import { serverMissed } from '../../store/server-slice.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import type { AppDispatch, RootState } from '../../store/store.ts';
import type { loginOf } from '../account/index.ts';
import { lookAtLogins } from './look-at-logins.ts';

const STEP_TIMEOUT_MS = 5000;

/** Probes that this page has running, to cancel them. Sockets are no state for the store. */
const running = new Map<string, AbortController>();

export interface ProbeTarget {
  readonly camera: Camera;
  readonly stream: Stream;
  /** As whom, and what a person allowed for this press. */
  readonly login: ReturnType<typeof loginOf> & { readonly oneMore?: boolean };
  readonly transport: TransportChoice;
  readonly sampleS?: number;
  /** Where it fails, why is found out by experiment, which may spend two more logins: only where somebody looks at this one. */
  readonly diagnose: boolean;
}

const openSiteId = (_: AppDispatch, getState: () => RootState): string => selectSite(getState()).id;

/** What the site knows that may help where the probe fails. */
const hintsFor =
  (camera: Camera, { label }: Stream) =>
  (_: AppDispatch, getState: () => RootState): Pick<ProbeRequest, 'paths' | 'onvifPort'> => {
    const site = selectSite(getState());
    const model = site.models.find(({ id }) => id === camera.modelId);
    return {
      paths: [...pathHints(site, selectIndex(getState()), camera, label, MOST_HINTED_PATHS)],
      onvifPort: onvifPortOf(camera, model),
    };
  };

/** The certificate that its address is known by. */
const certificateOf =
  (camera: Camera, stream: Stream) =>
  (_: AppDispatch, getState: () => RootState): string | null =>
    knownFingerprint(selectIndex(getState()), camera, stream);

/** Probes a stream; what it teaches goes into the document when it ends. A probe that runs already is cancelled first. */
export async function probeStream(
  { camera, stream, login, transport, sampleS = SAMPLE_S, diagnose }: ProbeTarget,
  dispatch: AppDispatch,
): Promise<void> {
  cancelProbe(stream.id);
  const controller = new AbortController();
  running.set(stream.id, controller);
  const probeId = newId('probe');
  const siteId = dispatch(openSiteId);
  const url = plainUrlOf(camera, stream);
  dispatch(probeStarted({ streamId: stream.id, probeId, startedAtMs: performance.now() }));
  let hasReport = false;
  try {
    const request = {
      ...login,
      url,
      secret: login.user === null ? null : (login.secret ?? ''),
      knownFingerprint: dispatch(certificateOf(camera, stream)),
      seconds: sampleS,
      probeId,
      timeoutMs: STEP_TIMEOUT_MS,
      media: true,
      transport,
      tunnel: camera.line === 'tunnel',
      diagnose,
      ...dispatch(hintsFor(camera, stream)),
    };
    await streamProbe(request, controller.signal, (event) => {
      dispatch(probeEventSeen({ streamId: stream.id, event }));
      if (event.kind !== 'report') return;
      hasReport = true;
      const { report } = event;
      // Meanwhile another site may have been opened, a copy of this one too, or the camera removed: then nobody is left to remember it.
      dispatch((act: AppDispatch, getState: () => RootState) => {
        const site = selectSite(getState());
        const there = site.id === siteId ? site.cameras.find(({ id }) => id === camera.id) : undefined;
        if (there?.streams.some(({ id }) => id === stream.id))
          act(commandIssued(probeRecord({ streamId: stream.id, url, probeId, report })));
      });
    });
    if (!hasReport && !controller.signal.aborted) throw new Error('The probe ended without a report.');
  } catch (error) {
    if (controller.signal.aborted) dispatch(probeCancelled(stream.id));
    else {
      if (!(error instanceof ServerRefused)) dispatch(serverMissed());
      const message = sayBreak(error, 'the probe');
      dispatch(probeBroken({ streamId: stream.id, message }));
    }
  } finally {
    if (running.get(stream.id) === controller) running.delete(stream.id);
    void lookAtLogins(dispatch);
  }
}

/** The sample is long enough: what came so far is judged. */
export const endProbeSample =
  (streamId: string) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    const run = getState().probe[streamId];
    if (run?.status !== 'running') return;
    await endSample({ probeId: run.probeId }).catch(() => dispatch(serverMissed()));
  };

export function cancelProbe(streamId: string): void {
  running.get(streamId)?.abort();
}
