import { Link } from 'react-router';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { OPTION_WORDS, WRITES } from '../../../core/firmware/options.ts';
import { STEP_WORDS } from '../../../core/firmware/procedure-words.ts';
import { hasGuide, runOf } from '../../../core/stations/prepare/index.ts';
import { stationPath } from '../../store/station-path.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { Panel } from '../../ui/panel.tsx';
import { useSiteView } from '../use-site-view.ts';

/** Another firmware in a few lines, and the way to its bench. */
export function FirmwarePanel({ camera }: { camera: Camera }) {
  const siteId = useSiteId();
  const view = useSiteView();
  const { reflash } = camera;
  const told = runOf(view.index, camera);
  const decision = reflash?.decision ?? null;
  const to = stationPath(siteId, camera.id, 'prepare');
  return (
    <Panel title="Firmware">
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        <dt className="text-soft">decided</dt>
        <dd>{decision ? OPTION_WORDS[decision] : 'nothing yet'}</dd>
        {decision !== null && WRITES.has(decision) && (
          <>
            <dt className="text-soft">firmware file</dt>
            <dd className="min-w-0 font-mono break-all">{reflash?.image?.fileName ?? 'none yet'}</dd>
            <dt className="text-soft">way back</dt>
            <dd>
              {reflash?.backImage ? reflash.backImage.fileName : reflash?.isBackGivenUp ? 'none, accepted' : 'none yet'}
            </dd>
          </>
        )}
        {told && (
          <>
            <dt className="text-soft">reflash</dt>
            <dd>{STEP_WORDS[told.run.phase].title}</dd>
          </>
        )}
      </dl>
      <p className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
        <Link to={`${to}/reflash`} className="font-strong text-verdigris hover:underline">
          Reflash bench →
        </Link>
        {hasGuide(view.modelOf(camera)) && (
          <Link to={`${to}/rehearsal`} className="font-strong text-verdigris hover:underline">
            Rehearse it →
          </Link>
        )}
      </p>
    </Panel>
  );
}
