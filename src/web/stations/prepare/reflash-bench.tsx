import { useRef } from 'react';
import { Link } from 'react-router';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { type Reflash, UNSAID_REFLASH } from '../../../core/document/chapters/cameras/reflash.ts';
import type { Finding } from '../../../core/findings/finding.ts';
import { WRITES } from '../../../core/firmware/options.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { FindingsPanel } from '../../things/finding/index.ts';
import { Button } from '../../ui/button.tsx';
import type { BenchProps } from './bench-props.ts';
import { DecidePanel } from './decide-panel.tsx';
import { BackPanel, ImagePanel } from './firmware-file-panel.tsx';
import { GuidePanel } from './guide-panel.tsx';
import { ProcedurePanel } from './procedure-panel.tsx';
import { CardPanel } from './sd-card-panel.tsx';

/** Findings that belong to the bench: of another firmware, its image and its card. */
const OF_BENCH = /^prepare\.(firmware|image|way-back|card|read-back|rehearsal|lamps|reflash)/;

/** The bench of one camera for another firmware, from the decision to the card that is ready. */
export function ReflashBench({ camera, findings }: { camera: Camera; findings: readonly Finding[] }) {
  const siteId = useSiteId();
  const dispatch = useAppDispatch();
  const reflash = camera.reflash ?? UNSAID_REFLASH;
  const put = (next: Reflash | null): void =>
    void dispatch(commandIssued({ kind: 'setReflash', cameraId: camera.id, reflash: next }));
  // What a file is hashed for goes into what is decided by then, not by when it was dropped.
  const latest = useRef(reflash);
  latest.current = reflash;
  const bench: BenchProps = { camera, reflash, set: (change) => put({ ...latest.current, ...change }) };
  const writes = reflash.decision !== null && WRITES.has(reflash.decision);
  const own = findings.filter(({ rule }) => OF_BENCH.test(rule));
  return (
    <>
      <p className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
        <Link to={stationPath(siteId, camera.id, 'prepare')} className="font-strong text-verdigris hover:underline">
          ← Accounts and settings
        </Link>
        <span className="text-small text-soft">
          Only what the customer owns. A reflash ends warranty and approval marks; this tool comes with no firmware.
        </span>
        {camera.reflash !== null && (
          <Button kind="quiet" className="ml-auto text-small" onClick={() => put(null)}>
            Remove all of it
          </Button>
        )}
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
        <div className="contents lg:flex lg:min-w-0 lg:flex-col lg:gap-4">
          <div className="min-w-0 max-lg:order-1">
            <DecidePanel {...bench} />
          </div>
          {writes && (
            <>
              <div className="min-w-0 max-lg:order-3">
                <ImagePanel {...bench} />
              </div>
              <div className="min-w-0 max-lg:order-4">
                <BackPanel {...bench} />
              </div>
              <div className="min-w-0 max-lg:order-5">
                <CardPanel {...bench} />
              </div>
            </>
          )}
        </div>
        <div className="contents lg:flex lg:min-w-0 lg:flex-col lg:gap-4">
          {own.length > 0 && <FindingsPanel cameraId={camera.id} findings={own} />}
          <div className="min-w-0 max-lg:order-2">
            <GuidePanel camera={camera} />
          </div>
          <div className="min-w-0 max-lg:order-6">
            <ProcedurePanel camera={camera} />
          </div>
        </div>
      </div>
    </>
  );
}
