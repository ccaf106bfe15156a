import { Link } from 'react-router';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import { bestKnown } from '../../../core/evidence/best-known.ts';
import { ENDS } from '../../../core/firmware/procedure.ts';
import { STEP_WORDS } from '../../../core/firmware/procedure-words.ts';
import { hasGuide, runOf } from '../../../core/stations/prepare/index.ts';
import { stationPath } from '../../store/station-path.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { Panel } from '../../ui/panel.tsx';
import { sayWhen } from '../../ui/say-when.ts';
import { useSiteView } from '../use-site-view.ts';

/** The hands-on part: rehearsed first, then done, with its steps as they were told. */
export function ProcedurePanel({ camera }: { camera: Camera }) {
  const siteId = useSiteId();
  const view = useSiteView();
  const told = runOf(view.index, camera);
  const to = stationPath(siteId, camera.id, 'prepare');
  const rehearsed = bestKnown(view.index, cameraSubject(camera.id), 'reflash.rehearsed.onward');
  const isOpen = told !== null && !ENDS.has(told.run.phase);
  return (
    <Panel title="Procedure" aside={told ? STEP_WORDS[told.run.phase].title : 'not begun'}>
      {hasGuide(view.modelOf(camera)) ? (
        <p className="flex flex-wrap gap-x-4 gap-y-1">
          <Link to={`${to}/rehearsal`} className="font-strong text-verdigris hover:underline">
            Rehearse it →
          </Link>
          <Link to={`${to}/run`} className="font-strong text-verdigris hover:underline">
            {isOpen ? 'Continue →' : 'Start →'}
          </Link>
        </p>
      ) : (
        <p className="text-soft">Write the reflash guide of its model: the steps are made from it.</p>
      )}
      <p className="mt-1 text-small text-soft">
        {rehearsed ? `Rehearsed ${sayWhen(rehearsed.takenAt ?? '')}.` : 'Not rehearsed yet.'}
      </p>
      {told && (
        <ol className="mt-2 text-small">
          {told.steps.slice(-8).map(({ atMs, to: phase }) => (
            <li key={`${atMs} ${phase}`} className="flex gap-3">
              <span className="font-mono text-soft">{sayWhen(new Date(atMs).toISOString())}</span>
              {STEP_WORDS[phase].title}
            </li>
          ))}
        </ol>
      )}
    </Panel>
  );
}
