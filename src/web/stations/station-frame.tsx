import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type ReactNode, Suspense, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { VERDICT_WORDS } from '../../core/base/verdict.ts';
import type { Camera } from '../../core/document/chapters/cameras/camera.ts';
import { findingsAt, type Lane, openAt } from '../../core/lanes/lane-types.ts';
import { modelOf } from '../../core/site/model-of.ts';
import type { StationId } from '../../core/stations/registry.ts';
import { selectLanesById } from '../store/lanes-slice.ts';
import { selectSite } from '../store/site-slice.ts';
import { stationPath } from '../store/station-path.ts';
import { useAppSelector } from '../store/store.ts';
import { useSiteId } from '../store/use-site-id.ts';
import { CameraDialog } from '../things/camera/index.ts';
import { CameraFindings, WorstFinding } from '../things/finding/index.ts';
import { Button } from '../ui/button.tsx';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { DropShape } from '../ui/drop.tsx';
import { SEVERITY_TEXT, SEVERITY_WORDS } from '../ui/finding-card.tsx';
import { sayWhen } from '../ui/say-when.ts';
import { useShortcut } from '../ui/shortcut.ts';
import { NoSuchCamera } from './no-such-camera.tsx';

interface StationFrameProps {
  readonly station: StationId;
  readonly children: (camera: Camera, lane: Lane) => ReactNode;
}

/** One camera at one station: its name and neighbours, its lane as the way between stations, and the working surface. */
export function StationFrame({ station, children }: StationFrameProps) {
  const siteId = useSiteId();
  const { cameraId } = useParams();
  const site = useAppSelector(selectSite);
  const lanes = useAppSelector(selectLanesById);
  const navigate = useNavigate();
  const [isEdited, setIsEdited] = useState(false);
  const at = site.cameras.findIndex(({ id }) => id === cameraId);
  const camera = site.cameras[at];
  const goTo = (other: Camera | undefined): void => {
    if (other) void navigate(stationPath(siteId, other.id, station));
  };
  useShortcut('k', () => goTo(site.cameras[at - 1]));
  useShortcut('j', () => goTo(site.cameras[at + 1]));
  if (!camera) return <NoSuchCamera />;
  const lane = lanes[camera.id];
  if (!lane) return null; // it is judged in a moment
  const neighbour = (offset: number): Camera | undefined => site.cameras[at + offset];
  const pathOf = (other: Camera | undefined, at: StationId = station): string =>
    `/site/${siteId}/camera/${other?.id}/${at}`;
  return (
    <>
      <header className="mb-4 grid grid-cols-[1fr_auto] items-center gap-x-4 gap-y-2 border-b border-hair pb-3 md:grid-cols-[200px_minmax(0,1fr)_200px]">
        <div>
          <h1 tabIndex={-1} className="text-title outline-none">
            {camera.name}
          </h1>
          <p className="flex items-center gap-1.5 text-small text-soft">
            {modelOf(site, camera)} · {at + 1} of {site.cameras.length}
            <Neighbour
              camera={neighbour(-1)}
              to={pathOf(neighbour(-1))}
              label="Previous camera"
              icon={<ChevronLeft size={16} />}
            />
            <Neighbour
              camera={neighbour(1)}
              to={pathOf(neighbour(1))}
              label="Next camera"
              icon={<ChevronRight size={16} />}
            />
          </p>
          {camera.place && <p className="text-small text-soft">{camera.place}</p>}
        </div>
        <nav aria-label="Stations" className="order-last col-span-2 flex justify-center md:order-none md:col-span-1">
          <ol className="relative flex w-full md:w-auto md:max-w-full">
            <span
              aria-hidden="true"
              className="absolute top-[17px] h-px bg-hair"
              style={{ insetInline: `${50 / lane.stations.length}%` }}
            />
            {lane.stations.map(({ station: id, name, verdict }) => (
              <li key={id} className="relative min-w-0 flex-1 text-center md:w-28 md:flex-initial">
                <Link to={pathOf(camera, id)} aria-current={id === station ? 'step' : undefined} className="block">
                  <svg width="36" height="36" viewBox="-18 -18 36 36" className="mx-auto block" aria-hidden="true">
                    <circle
                      r="16"
                      fill="var(--paper)"
                      stroke={id === station ? 'var(--ink)' : 'none'}
                      strokeWidth="1.4"
                    />
                    <g transform="scale(1.15)">
                      <DropShape verdict={verdict} />
                    </g>
                  </svg>
                  <span className={stationNameLook(id === station, lane.stations.length)}>{name}</span>
                  <span className="sr-only">: {VERDICT_WORDS[verdict]}</span>
                </Link>
              </li>
            ))}
          </ol>
        </nav>
        <div className="text-right">
          <LaneStatus lane={lane} />
          <Button kind="quiet" className="no-print text-small" onClick={() => setIsEdited(true)}>
            Change {camera.name}
          </Button>
        </div>
      </header>
      {isEdited && (
        <Suspense fallback={null}>
          <CameraDialog
            key={camera.id}
            camera={camera}
            onClose={() => setIsEdited(false)}
            onGone={() => {
              setIsEdited(false);
              void navigate(`/site/${siteId}`);
            }}
            onCopied={(copyId) => {
              setIsEdited(false);
              void navigate(stationPath(siteId, copyId, station));
            }}
          />
        </Suspense>
      )}
      <WorstFinding
        cameraId={camera.id}
        findings={findingsAt(lane, station)}
        otherwise={<NextHere lane={lane} station={station} pathOf={(id) => pathOf(camera, id)} />}
      />
      {children(camera, lane)}
    </>
  );
}

/** Names that a phone has room for; of more stations it shows the one that is open. */
const MOST_NAMES_ON_PHONE = 4;

function stationNameLook(isOpen: boolean, count: number): string {
  if (isOpen) return 'font-strong whitespace-nowrap';
  return count > MOST_NAMES_ON_PHONE ? 'text-soft max-md:sr-only' : 'text-soft';
}

interface NextHereProps {
  readonly lane: Lane;
  readonly station: StationId;
  readonly pathOf: (station: StationId) => string;
}

/** The one next step, and the way to where it is done. */
function NextHere({ lane, station, pathOf }: NextHereProps) {
  const { next, standsAt } = lane;
  const [open] = openAt(lane, station);
  const notKnown = open && (
    <span className="text-soft">
      <b className="mr-1.5">Not known</b>
      {open}
    </span>
  );
  if (next === null || standsAt === null)
    return notKnown ? <p>{notKnown}</p> : <p className="text-soft">No open steps for this camera.</p>;
  return (
    <p className="flex flex-wrap gap-x-4">
      <span>
        <span className="mr-1.5 text-soft">Next</span>
        {standsAt === station ? (
          <b>{next}</b>
        ) : (
          <Link to={pathOf(standsAt)} className="font-strong text-verdigris hover:underline">
            {next}&nbsp;→
          </Link>
        )}
      </span>
      {notKnown}
    </p>
  );
}

/** When it was probed, and the worst that is known of it. */
function LaneStatus({ lane }: { lane: Lane }) {
  const { worst, measured } = lane;
  const [isOpen, setIsOpen] = useState(false);
  const others = lane.findings.filter(({ severity }) => severity !== 'note').length - 1;
  return (
    <div className="text-right text-small text-soft">
      <p>{measured === null ? 'Not probed yet' : `Probed ${sayWhen(measured.at)}`}</p>
      {worst ? (
        <p>
          <button
            type="button"
            className="min-h-6 hover:underline pointer-coarse:min-h-11"
            onClick={() => setIsOpen(true)}
          >
            <b className={SEVERITY_TEXT[worst.severity]}>{SEVERITY_WORDS[worst.severity]}</b>
            {others > 0 && ` and ${others} more`}
          </button>
        </p>
      ) : (
        measured !== null && <p>{measured.isOutdated ? 'before its address changed' : 'Nothing to fix'}</p>
      )}
      <DialogFrame
        title="All findings"
        description="At every station, worst first."
        isOpen={isOpen}
        onOpenChange={setIsOpen}
      >
        <div className="text-left text-base text-ink">
          <CameraFindings cameraId={lane.cameraId} findings={lane.findings} />
        </div>
      </DialogFrame>
    </div>
  );
}

function Neighbour({
  camera,
  to,
  label,
  icon,
}: {
  camera: Camera | undefined;
  to: string;
  label: string;
  icon: ReactNode;
}) {
  if (!camera)
    return (
      <span aria-hidden="true" className="no-print px-1 text-faint opacity-40">
        {icon}
      </span>
    );
  return (
    <Link to={to} aria-label={`${label}: ${camera.name}`} className="no-print px-1 py-1 hover:text-ink">
      {icon}
    </Link>
  );
}
