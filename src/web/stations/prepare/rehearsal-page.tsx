import { useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { ReflashGuide } from '../../../core/firmware/guide.ts';
import { hasGuide } from '../../../core/stations/prepare/index.ts';
import { askStandin } from '../../api/standins.ts';
import { selectServer } from '../../store/server-slice.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { Button } from '../../ui/button.tsx';
import { NoSuchCamera } from '../no-such-camera.tsx';
import { useSiteView } from '../use-site-view.ts';
import { Runner } from './runner.tsx';
import { SimBench } from './sim-bench.tsx';
import { useRehearsal } from './use-rehearsal.ts';

/** Rehearses the reflash of a camera, so that the first try is not on a customer's device. */
export function RehearsalPage() {
  const siteId = useSiteId();
  const { cameraId } = useParams();
  const site = useAppSelector(selectSite);
  const view = useSiteView();
  const camera = site.cameras.find(({ id }) => id === cameraId);
  if (!camera) return <NoSuchCamera />;
  const model = view.modelOf(camera);
  const to = `${stationPath(siteId, cameraId, 'prepare')}/reflash`;
  return (
    <>
      <header className="mb-3 flex flex-wrap items-baseline gap-x-4">
        <h1 tabIndex={-1} className="text-title outline-none">
          Rehearsal: {camera.name}
        </h1>
        <Link to={to} className="font-strong text-verdigris hover:underline">
          Reflash bench
        </Link>
      </header>
      {model?.reflash && hasGuide(model) ? (
        <Rehearse key={camera.id} camera={camera} guide={model.reflash} />
      ) : (
        <p>
          The reflash guide of its model is not written. <Link to={to}>Write it at the bench →</Link>
        </p>
      )}
    </>
  );
}

const PACES = [1, 10, 60] as const;

function Rehearse({ camera, guide }: { camera: Camera; guide: ReflashGuide }) {
  const dispatch = useAppDispatch();
  const rehearsal = useRehearsal(guide);
  const { run, inputs, camera: sim } = rehearsal;
  const isSimulated = useAppSelector(selectServer).network === 'simulated';
  const [atStandin, setAtStandin] = useState<{ readonly isError: boolean; readonly text: string } | null>(null);
  const isDone =
    run.phase === 'done' && sim.phase === 'running' && sim.firmware === (run.direction === 'onward' ? 'new' : 'stock');
  const recorded = useRef<unknown>(null);
  const { direction, attempt } = run;

  /** What was rehearsed is done to the simulated camera of the demo too, as the same script. */
  useEffect(() => {
    if (!isDone || recorded.current === run) return;
    recorded.current = run;
    dispatch(commandIssued({ kind: 'recordRehearsal', cameraId: camera.id, direction, tries: attempt }));
    if (!isSimulated || camera.host === '') return;
    const last = Math.round(rehearsal.now);
    askStandin({ host: camera.host, account: null, inputs: [...inputs, { kind: 'wait', atMs: last }] }).then(
      ({ states }) => {
        const end = states.at(-1);
        if (end)
          setAtStandin({
            isError: false,
            text: end.listens
              ? 'The simulated camera was reflashed in the same way: its stream answers now.'
              : 'The simulated camera went the same way: it has no stream now.',
          });
      },
      (error: unknown) => setAtStandin({ isError: true, text: error instanceof Error ? error.message : String(error) }),
    );
  });

  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,6fr)_minmax(0,6fr)]">
      <div>
        <Runner run={run} steps={rehearsal.steps} guide={guide} now={rehearsal.now} isQuiet onTell={rehearsal.tell} />
        {run.phase === 'done' && (
          <p
            role="status"
            className={`mx-auto mt-3 max-w-[560px] border-l-[3px] pl-3 ${isDone ? 'border-verdigris' : 'border-brick'}`}
          >
            {isDone
              ? `Rehearsed${attempt > 1 ? ` in ${attempt} attempts` : ''}. It is in the logbook.`
              : `The steps are done, and the camera does not run the right firmware: ${sim.why}`}
            {atStandin && (
              <span
                role={atStandin.isError ? 'alert' : undefined}
                className={`block ${atStandin.isError ? 'text-brick' : ''}`}
              >
                {atStandin.text}
              </span>
            )}
          </p>
        )}
        <div className="mx-auto mt-3 flex max-w-[560px] flex-wrap items-center gap-2">
          <Button onClick={() => begin('onward')}>Start again</Button>
          {guide.backName !== '' && <Button onClick={() => begin('back')}>Rehearse going back</Button>}
          <span className="ml-auto text-small text-soft">time runs</span>
          {PACES.map((pace) => (
            <Button
              key={pace}
              className="text-small"
              aria-pressed={rehearsal.pace === pace}
              aria-label={`Time runs ${pace} times as fast`}
              kind={rehearsal.pace === pace ? 'main' : 'plain'}
              onClick={() => rehearsal.setPace(pace)}
            >
              ×{pace}
            </Button>
          ))}
        </div>
      </div>
      <div>
        <SimBench key={run.direction} guide={guide} rehearsal={rehearsal} />
        <p className="mt-2 text-small text-soft">
          Choose SD card, file and name, hold as long as you like, unplug it when you like. On the left enter what you
          see.
        </p>
      </div>
    </div>
  );

  function begin(way: 'onward' | 'back'): void {
    setAtStandin(null);
    rehearsal.begin(way, way === 'onward' ? 'stock' : 'new');
  }
}
