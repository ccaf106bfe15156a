import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { sayMany } from '../../../core/base/say.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import { modelOf } from '../../../core/document/model-of.ts';
import { type Lane, opensAt } from '../../../core/lanes/lane-types.ts';
import { selectLanes, selectLanesById } from '../../store/lanes-slice.ts';
import { useNextStep } from '../../store/next-step.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { MendAct } from '../../things/finding/mend-act.tsx';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Drop } from '../../ui/drop.tsx';
import { SEVERITY_TEXT, SEVERITY_WORDS } from '../../ui/finding-card.tsx';
import { LaneLine } from '../../ui/lane-line.tsx';
import { ThumbBar } from '../../ui/thumb-bar.tsx';
import { AddCameraForm } from './add-camera-form.tsx';
import { EmptyRound } from './empty-round.tsx';

/** px for all stations, and at most for one: as many as there are fit. */
const WIDE = { all: 560, one: 128 } as const;
const PHONE = { all: 336, one: 70 } as const;
const stepOf = ({ all, one }: typeof WIDE | typeof PHONE, stations: number): number =>
  Math.min(one, Math.floor(all / Math.max(1, stations)));
const LEGEND = ['ok', 'tight', 'will-not-work', 'unknown'] as const;

/** The home screen: every camera as a lane, how far it got, what stands in the way, its one next step. */
export function RoundPage() {
  const site = useAppSelector(selectSite);
  const lanes = useAppSelector(selectLanes);
  const byId = useAppSelector(selectLanesById);
  const { siteId } = useParams();
  const navigate = useNavigate();
  const [isAdding, setIsAdding] = useState(false);
  const pathOf = (lane: Lane): string => `/site/${siteId}/camera/${lane.cameraId}/${opensAt(lane)}`;
  const stations = lanes[0]?.stations ?? [];
  const goNext = useNextStep();

  if (site.cameras.length === 0) return <EmptyRound />;
  const stopped = lanes.filter((lane) => lane.worst?.severity === 'stop').length;
  const done = lanes.filter((lane) => lane.standsAt === null).length;
  return (
    <>
      <header className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-title">Round</h1>
        <p className="text-soft">
          {sayMany(site.cameras.length, 'camera')} · {done} handed over
          {stopped > 0 && (
            <>
              {' · '}
              <span className="text-brick">{stopped} stopped</span>
            </>
          )}
        </p>
        <span className="ml-auto flex gap-2">
          <Button onClick={() => setIsAdding(true)}>Add a camera</Button>
          {goNext && (
            <ThumbBar>
              <Button kind="main" shortcut="N" onClick={goNext}>
                Next unfinished
              </Button>
            </ThumbBar>
          )}
        </span>
      </header>

      <table className="hidden w-full border border-hair bg-sheet md:table">
        <thead>
          <tr className="border-b border-hair text-left text-small text-soft">
            <th className="py-2 pl-4">Camera</th>
            <th className="w-0 p-0">
              <span className="flex">
                {stations.map(({ station, name }) => (
                  <span key={station} style={{ width: stepOf(WIDE, stations.length) }} className="text-center">
                    {name}
                  </span>
                ))}
              </span>
            </th>
            <th className="pl-8">What stands in the way</th>
            <th className="pr-4 text-right">Next</th>
          </tr>
        </thead>
        <tbody>
          {site.cameras.map((camera) => {
            const lane = byId[camera.id];
            if (!lane) return null; // it is judged in a moment
            return (
              <tr key={lane.cameraId} className="border-b border-hair last:border-b-0">
                <th scope="row" className="py-2.5 pl-4 text-left align-middle">
                  <Link to={pathOf(lane)} className="block text-name hover:underline">
                    {camera.name}
                  </Link>
                  <span className="text-small font-normal text-soft">{modelOf(site, camera)}</span>
                </th>
                <td className="p-0">
                  <LaneLine lane={lane} step={stepOf(WIDE, stations.length)} />
                </td>
                <td className="max-w-80 py-2.5 pl-8">
                  <InTheWay lane={lane} />
                </td>
                <td className="py-2.5 pr-4 text-right">
                  <NextStep lane={lane} to={pathOf(lane)} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>

      <ul className="flex flex-col gap-2.5 md:hidden">
        {site.cameras.map((camera) => {
          const lane = byId[camera.id];
          if (!lane) return null;
          return (
            <li key={lane.cameraId} className="border border-hair bg-sheet px-3 pt-2 pb-1">
              <div className="flex items-baseline justify-between">
                <Link to={pathOf(lane)} className="text-name font-strong">
                  {camera.name}
                </Link>
                <span className="text-small text-soft">
                  {standName(lane)}
                  {lane.worst && (
                    <b className={`ml-2 ${SEVERITY_TEXT[lane.worst.severity]}`}>
                      {SEVERITY_WORDS[lane.worst.severity]}
                    </b>
                  )}
                </span>
              </div>
              <div className="-ml-3">
                <LaneLine lane={lane} step={stepOf(PHONE, stations.length)} />
              </div>
              <InTheWay lane={lane} isBrief />
              <NextStep lane={lane} to={pathOf(lane)} />
            </li>
          );
        })}
      </ul>

      <footer className="mt-5 flex flex-wrap items-center gap-x-5 gap-y-1 text-small text-soft">
        {LEGEND.map((verdict) => (
          <span key={verdict} className="inline-flex items-center gap-1">
            <Drop verdict={verdict} size={18} /> {VERDICT_WORDS[verdict]}
          </span>
        ))}
        <span className="inline-flex items-center gap-1.5">
          <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
            <circle cx="8" cy="8" r="7" fill="none" stroke="var(--ink)" strokeWidth="1.3" />
          </svg>
          where this camera stands
        </span>
        <span className="md:ml-auto">Dial only equipment that is yours or that you are asked to work on.</span>
      </footer>

      <DialogFrame
        title="Add a camera"
        description="Paste its stream URL, type its address, or only name the place; the rest can wait."
        isOpen={isAdding}
        onOpenChange={setIsAdding}
      >
        <AddCameraForm
          onAdded={(cameraId, hangs) => void navigate(`/site/${siteId}/camera/${cameraId}/${hangs ? 'tap' : 'choose'}`)}
        />
      </DialogFrame>
    </>
  );
}

function InTheWay({ lane, isBrief = false }: { lane: Lane; isBrief?: boolean }) {
  if (lane.worst)
    return (
      <p>
        {!isBrief && (
          <b className={`mr-1.5 ${SEVERITY_TEXT[lane.worst.severity]}`}>{SEVERITY_WORDS[lane.worst.severity]}</b>
        )}
        {lane.worst.title}
        <span className="block">
          <MendAct cameraId={lane.cameraId} finding={lane.worst} />
        </span>
      </p>
    );
  return <p className="text-soft">{lane.idle}</p>;
}

function standName({ stations, standsAt }: Lane): string {
  const stand = stations.find(({ station }) => station === standsAt);
  return stand ? `at ${stand.name}` : 'done';
}

function NextStep({ lane, to }: { lane: Lane; to: string }) {
  return (
    <Link
      to={to}
      className="inline-flex min-h-8 items-center font-strong text-verdigris hover:underline pointer-coarse:min-h-11"
    >
      {lane.next ?? 'Open its sheet'}&nbsp;→
    </Link>
  );
}
