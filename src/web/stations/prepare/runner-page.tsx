import { Link, useParams } from 'react-router';
import type { Direction, Signal } from '../../../core/firmware/procedure.ts';
import { ENDS } from '../../../core/firmware/procedure.ts';
import { STEP_WORDS } from '../../../core/firmware/procedure-words.ts';
import { hasGuide, runOf } from '../../../core/stations/prepare/index.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { Button } from '../../ui/button.tsx';
import { NoSuchCamera } from '../no-such-camera.tsx';
import { useSiteView } from '../use-site-view.ts';
import { Runner } from './runner.tsx';
import { useClock } from './use-clock.ts';

/**
 * The procedure in somebody's hand. Each step is told to the journal as it is said: where it stands, and since when, is read
 * from there, on this device and after the page was closed.
 */
export function RunnerPage() {
  const siteId = useSiteId();
  const { cameraId } = useParams();
  const site = useAppSelector(selectSite);
  const dispatch = useAppDispatch();
  const now = useClock();
  const view = useSiteView();
  const camera = site.cameras.find(({ id }) => id === cameraId);
  const to = `${stationPath(siteId, cameraId, 'prepare')}/reflash`;
  if (!camera) return <NoSuchCamera />;
  const model = view.modelOf(camera);
  const guide = model?.reflash ?? null;
  const told = runOf(view.index, camera);
  const tell = (step: Signal | `begin:${Direction}`, said: string): void =>
    void dispatch(
      commandIssued({ kind: 'recordReflashStep', cameraId: camera.id, told: step, said, by: 'at the camera' }),
    );
  const begin = (direction: Direction): void =>
    tell(`begin:${direction}`, direction === 'onward' ? 'reflash begun' : 'going back begun');
  const isOpen = told !== null && !ENDS.has(told.run.phase);
  return (
    <>
      <header className="mx-auto mb-3 flex w-full max-w-[560px] items-baseline gap-3">
        <h1 tabIndex={-1} className="text-title outline-none">
          {camera.name}
        </h1>
        <Link to={to} className="ml-auto font-strong text-verdigris hover:underline">
          Bench
        </Link>
      </header>
      {!guide || !hasGuide(model) ? (
        <p>
          The reflash guide of its model is not written. <Link to={to}>Write it at the bench →</Link>
        </p>
      ) : (
        <>
          {told && (
            <Runner
              run={told.run}
              steps={told.steps}
              guide={guide}
              now={now}
              onTell={(signal) => {
                const answer = STEP_WORDS[told.run.phase].answers.find((one) => one.signal === signal);
                tell(signal, `${STEP_WORDS[told.run.phase].title}: ${answer?.says ?? signal}`);
              }}
            />
          )}
          {told && (told.run.phase === 'network' || told.run.phase === 'check') && (
            <p className="mx-auto mt-3 w-full max-w-[560px]">
              <Link to={stationPath(siteId, cameraId, 'tap')} className="font-strong text-verdigris hover:underline">
                Probe it at Tap, and come back →
              </Link>
            </p>
          )}
          {!isOpen && (
            <div className="mx-auto mt-4 flex w-full max-w-[560px] flex-col gap-2">
              <p className="text-soft">
                Its own power supply, a charged phone, nobody who unplugs it. 48 V on a network cable and mains are
                dangerous: what is behind a cover is for licensed trades.
              </p>
              <Button kind="main" className="min-h-14 text-[17px]" onClick={() => begin('onward')}>
                Begin: write {guide.imageName}
              </Button>
              {guide.backName !== '' && (
                <Button className="min-h-12 text-[17px]" onClick={() => begin('back')}>
                  Go back: write {guide.backName}
                </Button>
              )}
            </div>
          )}
        </>
      )}
    </>
  );
}
