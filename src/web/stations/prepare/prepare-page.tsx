import { lazy, Suspense } from 'react';
import { Navigate, useParams } from 'react-router';
import type { Verdict } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Finding } from '../../../core/findings/finding.ts';
import { findingsAt, verdictAt } from '../../../core/lanes/lane-types.ts';
import { stationPath } from '../../store/station-path.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { FindingsPanel, NothingFound } from '../../things/finding/index.ts';
import { StationFrame } from '../station-frame.tsx';
import { AccountPanel } from './account-panel.tsx';
import { FirmwarePanel } from './firmware-panel.tsx';
import { SettingsPanel } from './settings-panel.tsx';

const OldPhonePanel = lazy(async () => ({ default: (await import('./old-phone-panel.tsx')).OldPhonePanel }));
const ReflashBench = lazy(async () => ({ default: (await import('./reflash-bench.tsx')).ReflashBench }));
const RunnerPage = lazy(async () => ({ default: (await import('./runner-page.tsx')).RunnerPage }));
const RehearsalPage = lazy(async () => ({ default: (await import('./rehearsal-page.tsx')).RehearsalPage }));

/** The Prepare station: accounts, settings, another firmware, old handsets. What is below it has an address of its own. */
export function PreparePage() {
  const siteId = useSiteId();
  const { '*': below = '', cameraId } = useParams();
  switch (below) {
    case 'run':
      return (
        <Suspense fallback={null}>
          <RunnerPage />
        </Suspense>
      );
    case 'rehearsal':
      return (
        <Suspense fallback={null}>
          <RehearsalPage />
        </Suspense>
      );
    case '':
    case 'reflash':
      return (
        <StationFrame station="prepare">
          {(camera, lane) => (
            <Suspense fallback={null}>
              {below === 'reflash' ? (
                <ReflashBench key={camera.id} camera={camera} findings={findingsAt(lane, 'prepare')} />
              ) : (
                <PrepareBench
                  key={camera.id}
                  camera={camera}
                  findings={findingsAt(lane, 'prepare')}
                  verdict={verdictAt(lane, 'prepare')}
                />
              )}
            </Suspense>
          )}
        </StationFrame>
      );
    default:
      return <Navigate to={stationPath(siteId, cameraId, 'prepare')} replace />;
  }
}

interface PrepareBenchProps {
  readonly camera: Camera;
  readonly findings: readonly Finding[];
  readonly verdict: Verdict;
}

function PrepareBench({ camera, findings, verdict }: PrepareBenchProps) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
      <div className="contents lg:flex lg:min-w-0 lg:flex-col lg:gap-4">
        <div className="min-w-0 max-lg:order-1">
          <AccountPanel camera={camera} />
        </div>
        <div className="min-w-0 max-lg:order-3">
          <SettingsPanel camera={camera} />
        </div>
      </div>
      <div className="contents lg:flex lg:min-w-0 lg:flex-col lg:gap-4">
        <FindingsPanel cameraId={camera.id} findings={findings}>
          <NothingFound verdict={verdict}>
            {verdict === 'ok' ? 'It is prepared.' : 'No open findings; not everything is known.'}
          </NothingFound>
        </FindingsPanel>
        {camera.kind === 'handset' && (
          <div className="min-w-0 max-lg:order-2">
            <OldPhonePanel camera={camera} />
          </div>
        )}
        {camera.kind === 'camera' && (
          <div className="min-w-0 max-lg:order-4">
            <FirmwarePanel camera={camera} />
          </div>
        )}
      </div>
    </div>
  );
}
