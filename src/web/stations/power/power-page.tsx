import type { Verdict } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Finding } from '../../../core/findings/finding.ts';
import { findingsAt, verdictAt } from '../../../core/lanes/lane-types.ts';
import { viewOf } from '../../../core/site/site-view.ts';
import type { PowerJudge } from '../../../core/stations/power/index.ts';
import { powerJudgeOf } from '../../../core/stations/power/index.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { FindingsPanel, NothingFound } from '../../things/finding/index.ts';
import { StationFrame } from '../station-frame.tsx';
import { BenchTestPanel } from './bench-test-panel.tsx';
import { ChargePanel } from './charge-panel.tsx';
import { FeedPanel } from './feed-panel.tsx';
import { LinksPanel } from './links-panel.tsx';
import { SunPanel } from './sun-panel.tsx';

/** The Power station: what feeds it, what is left at its end, and whether its picture gets through. */
export function PowerPage() {
  return (
    <StationFrame station="power">
      {(camera, lane) => (
        <PowerBench
          key={camera.id}
          camera={camera}
          findings={findingsAt(lane, 'power')}
          verdict={verdictAt(lane, 'power')}
        />
      )}
    </StationFrame>
  );
}

/** The one judge of the open document, for this view. */
export function usePowerJudge(): PowerJudge {
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  return powerJudgeOf(viewOf(site, index));
}

interface PowerBenchProps {
  readonly camera: Camera;
  readonly findings: readonly Finding[];
  readonly verdict: Verdict;
}

function PowerBench({ camera, findings, verdict }: PowerBenchProps) {
  const judge = usePowerJudge();
  const judgement = judge.judge(camera);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
      <div className="contents lg:flex lg:min-w-0 lg:flex-col lg:gap-4">
        <div className="flex min-w-0 flex-col gap-4 max-lg:order-1">
          <FeedPanel camera={camera} judge={judge} judgement={judgement} />
          {camera.feed?.way === 'solar' && <SunPanel camera={camera} judge={judge} judgement={judgement} />}
          {camera.kind === 'handset' && <ChargePanel camera={camera} />}
        </div>
        <div className="min-w-0 max-lg:order-3">
          <BenchTestPanel camera={camera} />
        </div>
      </div>
      <div className="contents lg:flex lg:min-w-0 lg:flex-col lg:gap-4">
        <FindingsPanel cameraId={camera.id} findings={findings}>
          {camera.feed ? (
            <NothingFound verdict={verdict}>
              {verdict === 'ok' ? 'Power and links hold.' : 'Whether it holds is not known.'}
            </NothingFound>
          ) : (
            <p className="text-soft">Enter its power source, and its power is computed.</p>
          )}
        </FindingsPanel>
        <div className="min-w-0 max-lg:order-2">
          <LinksPanel camera={camera} judge={judge} />
        </div>
      </div>
    </div>
  );
}
