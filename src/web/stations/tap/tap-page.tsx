import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Route, Routes } from 'react-router';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { plainUrlOf } from '../../../core/document/stream-address.ts';
import { streamSubject } from '../../../core/document/subject.ts';
import { factsOf } from '../../../core/evidence/evidence-index.ts';
import { judgeProbe, rememberedProbe } from '../../../core/evidence/remembered-probe.ts';
import { SAMPLE_S } from '../../../core/probe/sample-lengths.ts';
import type { TransportChoice } from '../../../core/rtsp/client-types.ts';
import { isOnWifi } from '../../../core/site/connected-by.ts';
import { viewOf } from '../../../core/site/site-view.ts';
import { selectRun } from '../../store/probe-slice.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { slipAsked } from '../../store/slip-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { loginOf, mayGo, passwordAt } from '../../things/account/index.ts';
import { CameraFindings } from '../../things/finding/index.ts';
import { ConnectionLog, cancelProbe, endProbeSample, probeStream } from '../../things/probe/index.ts';
import { StreamDialog } from '../../things/stream/index.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { Panel } from '../../ui/panel.tsx';
import { sayWhen } from '../../ui/say-when.ts';
import { useShortcut } from '../../ui/shortcut.ts';
import { TabStrip } from '../../ui/tab-strip.tsx';
import { rtspPlace } from '../../vault/camera-places.ts';
import { lacksSecret } from '../../vault/lacks-secret.ts';
import { useVault } from '../../vault/vault-context.tsx';
import { StationFrame } from '../station-frame.tsx';
import { AddressPanel } from './address-panel.tsx';
import { CardStreams } from './card-streams.tsx';
import { FactsTable } from './facts-table.tsx';
import { GivePanel } from './give-panel.tsx';
import { LivePicture } from './live-picture.tsx';
import { LoginActs, type LoginLeave } from './login-acts.tsx';
import { OfferPanel, QuietLessons } from './onvif/offer-panel.tsx';

/** The Tap station: address it, probe it, see it, give it to a destination. */
export function TapPage() {
  return (
    <StationFrame station="tap">
      {(camera) => (
        <Suspense fallback={null}>
          <Routes>
            <Route path="onvif" element={<DeviceReport key={camera.id} camera={camera} />} />
            <Route path="steer" element={<PtzControls key={camera.id} camera={camera} />} />
            <Route path="*" element={<TapBench key={camera.id} camera={camera} />} />
          </Routes>
        </Suspense>
      )}
    </StationFrame>
  );
}

const DeviceReport = lazy(async () => ({ default: (await import('./onvif/device-report-page.tsx')).DeviceReport }));
const SessionsPanel = lazy(async () => ({
  default: (await import('./sessions/sessions-panel.tsx')).SessionsPanel,
}));
const PtzControls = lazy(async () => ({ default: (await import('./ptz/ptz-controls.tsx')).PtzControls }));

function TapBench({ camera }: { camera: Camera }) {
  const [streamId, setStreamId] = useState(camera.streams[0]?.id ?? '');
  const [edited, setEdited] = useState<Stream | 'new' | null>(null);
  const stream = camera.streams.find(({ id }) => id === streamId) ?? camera.streams[0];
  return (
    <>
      {stream ? (
        <TabStrip
          label="Streams"
          value={stream.id}
          onChange={setStreamId}
          tabs={camera.streams.map(({ id, label }) => ({ value: id, label }))}
          beside={
            <>
              <Button kind="quiet" aria-label={`Change stream ${stream.label}`} onClick={() => setEdited(stream)}>
                Edit
              </Button>
              <Button kind="quiet" onClick={() => setEdited('new')}>
                Add a stream
              </Button>
            </>
          }
        >
          <CardStreams camera={camera} onAdded={setStreamId} />
          <StreamBench key={stream.id} camera={camera} stream={stream} onTaken={setStreamId} />
        </TabStrip>
      ) : (
        <p>
          This camera offers no stream yet. <Button onClick={() => setEdited('new')}>Add a stream</Button>
        </p>
      )}
      {edited && <StreamDialog camera={camera} edited={edited} onClose={() => setEdited(null)} onMade={setStreamId} />}
    </>
  );
}

interface StreamBenchProps {
  readonly camera: Camera;
  readonly stream: Stream;
  readonly onTaken: (streamId: string) => void;
}

function StreamBench({ camera, stream, onTaken }: StreamBenchProps) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const index = useAppSelector(selectIndex);
  const run = useAppSelector((root) => selectRun(root, stream.id));
  const site = useAppSelector(selectSite);
  const [probesAsked, setProbesAsked] = useState(0);
  /** The password was typed for another address, and a person said that it stays there. */
  const [isKept, setIsKept] = useState(false);
  const leave = useRef<LoginLeave>({});
  const [transport, setTransport] = useState<TransportChoice>('auto');
  const [sampleS, setSampleS] = useState(SAMPLE_S);
  const isProbing = run?.status === 'running';
  const isSampling = run?.status === 'running' && run.open.some(({ name }) => name === 'sample');
  const remembered = rememberedProbe(index, stream.id);
  const findings = remembered
    ? judgeProbe(remembered, site.assumptions, isOnWifi(viewOf(site, index), camera.id)).findings
    : [];
  // A probe that failed early teaches nothing of the stream: then there is no table of dashes.
  const hasFacts = factsOf(index, streamSubject(stream.id), 'codec').length > 0;
  const isCurrent = remembered?.payload.url === plainUrlOf(camera, stream);

  // The fields are kept by the click that asks; the probe starts with the next render, from the document as it then is.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only the asking starts a probe
  useEffect(() => {
    if (probesAsked === 0) return;
    let isGone = false;
    const use = { site, camera, account: camera.account, place: rtspPlace(camera, stream) };
    const isElsewhere = passwordAt(use, vault).kind === 'elsewhere';
    void mayGo([use], vault).then((allowed) => {
      if (isGone) return;
      setIsKept(allowed.length === 0 && !isElsewhere);
      if (allowed.length === 0 && isElsewhere) setIsSecretWanted(true);
      if (allowed.length === 0) return;
      const login = { ...loginOf(use, vault), ...leave.current };
      leave.current = {};
      void probeStream({ camera, stream, login, transport, sampleS, diagnose: true }, dispatch);
    });
    return () => {
      isGone = true;
    };
  }, [probesAsked]);
  useEffect(() => () => cancelProbe(stream.id), [stream.id]);
  // With its secret locked away a probe would spend a login attempt on nothing: unlocking comes first.
  // So does a secret that nobody typed since the page was opened: it is asked for where it is typed.
  const [isSecretWanted, setIsSecretWanted] = useState(false);
  const askProbe = (withoutSecret = false): void => {
    const use = { site, camera, account: camera.account, place: rtspPlace(camera, stream) };
    const lacks = lacksSecret(camera, stream, vault) && passwordAt(use, vault).kind !== 'elsewhere';
    if (lacks && !withoutSecret && vault.state === 'locked') return void dispatch(slipAsked('vault'));
    setIsSecretWanted(lacks && !withoutSecret);
    if (!lacks || withoutSecret) setProbesAsked((count) => count + 1);
  };
  useShortcut('p', () => {
    if (!isProbing) askProbe();
    else if (isSampling && sampleS > SAMPLE_S) void dispatch(endProbeSample(stream.id));
  });

  // Only what was probed is opened: an address that was typed since is not dialled without being asked to.
  const openKey = isCurrent && run?.status === 'finished' && run.report.verdict !== 'fail' ? run.probeId : null;
  const placeholder = isProbing
    ? 'The live picture opens after the probe'
    : run?.status === 'finished' && !isCurrent
      ? 'The address changed. Probe it to open its picture'
      : run?.status === 'finished'
        ? 'No picture: the probe did not get that far'
        : 'No picture yet. Probe to open one';
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
      <div className="contents lg:flex lg:min-w-0 lg:flex-col lg:gap-4">
        <div className="max-lg:order-1">
          <AddressPanel
            camera={camera}
            stream={stream}
            isProbing={isProbing}
            transport={transport}
            onTransport={setTransport}
            sampleS={sampleS}
            onSample={setSampleS}
            isSampling={isSampling}
            onEnough={() => void dispatch(endProbeSample(stream.id))}
            isSecretWanted={isSecretWanted && lacksSecret(camera, stream, vault)}
            onProbe={askProbe}
            onCancel={() => cancelProbe(stream.id)}
          />
          {isKept && (
            <p role="status" className="mt-2 border-l-[3px] border-brass pl-3">
              Not probed: the password stays with the address that it was typed for. Type it again for this one, or
              probe again and allow it.
            </p>
          )}
          {run?.status === 'finished' && isCurrent && (
            <LoginActs
              camera={camera}
              stream={stream}
              report={run.report}
              onProbe={(allowed) => {
                leave.current = allowed;
                askProbe();
              }}
            />
          )}
        </div>
        <div className="max-lg:order-4">
          <OfferPanel camera={camera} onTaken={onTaken} />
        </div>
        {run && (
          <div className="max-lg:order-3">
            <ConnectionLog run={run} />
          </div>
        )}
        {remembered && !isProbing && (
          <div className="max-lg:order-3">
            <Panel
              title="Findings"
              aside={
                isCurrent
                  ? `probed ${sayWhen(remembered.takenAt)}${run ? '' : '; its connection log is not kept beyond the visit'}`
                  : 'of the previous address; probe the new one'
              }
            >
              {findings.length > 0 ? (
                <CameraFindings cameraId={camera.id} findings={findings} />
              ) : (
                <p className="flex items-center gap-2">
                  <Drop verdict="ok" /> No findings for this stream.
                </p>
              )}
            </Panel>
          </div>
        )}
      </div>
      <div className="contents lg:flex lg:min-w-0 lg:flex-col lg:gap-4">
        <div className="max-lg:order-2">
          <LivePicture camera={camera} stream={stream} openKey={openKey} placeholder={placeholder} />
        </div>
        {hasFacts && (
          <section aria-label="Facts" className="max-lg:order-4 rounded-sheet border border-hair bg-sheet px-3.5 py-2">
            <FactsTable index={index} stream={stream} />
          </section>
        )}
        <div className="max-lg:order-5">
          <GivePanel camera={camera} stream={stream} />
        </div>
        <div className="max-lg:order-6">
          <Suspense fallback={null}>
            <SessionsPanel camera={camera} stream={stream} />
          </Suspense>
        </div>
        <div className="max-lg:order-7">
          <QuietLessons camera={camera} />
        </div>
      </div>
    </div>
  );
}
