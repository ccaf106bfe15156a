import { Link } from 'react-router';
import type { Verdict } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Finding } from '../../../core/findings/finding.ts';
import { findingsAt, verdictAt } from '../../../core/lanes/lane-types.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { FindingsPanel, NothingFound } from '../../things/finding/index.ts';
import { StationFrame } from '../station-frame.tsx';
import { KeepingPanel } from './keeping-panel.tsx';
import { PlacePanel } from './place-panel.tsx';
import { WaysPanel } from './ways-panel.tsx';

/** The Address station: where a camera is, by what it is known again, how its address stays, who may reach it. */
export function AddressPage() {
  return (
    <StationFrame station="address">
      {(camera, lane) => (
        <AddressBench
          key={camera.id}
          camera={camera}
          findings={findingsAt(lane, 'address')}
          verdict={verdictAt(lane, 'address')}
        />
      )}
    </StationFrame>
  );
}

interface AddressBenchProps {
  readonly camera: Camera;
  readonly findings: readonly Finding[];
  readonly verdict: Verdict;
}

function AddressBench({ camera, findings, verdict }: AddressBenchProps) {
  const siteId = useSiteId();
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
      <div className="flex min-w-0 flex-col gap-4">
        <PlacePanel camera={camera} />
        <KeepingPanel camera={camera} />
      </div>
      <div className="flex min-w-0 flex-col gap-4 max-lg:contents">
        <FindingsPanel cameraId={camera.id} findings={findings}>
          <NothingFound verdict={verdict}>
            {verdict === 'ok' ? 'Its address is fixed.' : 'No open findings; not everything is known.'}
          </NothingFound>
        </FindingsPanel>
        <WaysPanel camera={camera} />
        <p className="text-small text-soft">
          All addresses of the site, the scan of a network and files for the router are at{' '}
          <Link to={`/site/${siteId}/network`} className="font-strong text-verdigris">
            Network →
          </Link>
        </p>
      </div>
    </div>
  );
}
