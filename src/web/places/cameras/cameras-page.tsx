import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { sayMany } from '../../../core/base/say.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import { opensAt } from '../../../core/lanes/lane-types.ts';
import { modelOf } from '../../../core/site/model-of.ts';
import { startOf } from '../../stations/start-of.ts';
import { selectLanes, selectLanesById } from '../../store/lanes-slice.ts';
import { useNextStep } from '../../store/next-step.ts';
import { selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { AddCameraForm } from '../../things/camera/index.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Drop } from '../../ui/drop.tsx';
import { ThumbBar } from '../../ui/thumb-bar.tsx';
import { useMedia } from '../../ui/use-media.ts';
import { CamerasBar } from './cameras-bar.tsx';
import { filterOf, rowsOf, searchOf } from './cameras-filter.ts';
import { ChosenBar } from './chosen-bar.tsx';
import { LaneCards } from './lane-cards.tsx';
import type { LaneRow } from './lane-parts.tsx';
import { LaneTable } from './lane-table.tsx';
import { NoCameras } from './no-cameras.tsx';
import { ProbeAllButton, ProbeAllLine } from './probe-all-line.tsx';

const NONE: ReadonlySet<string> = new Set();
const LEGEND = ['ok', 'tight', 'will-not-work', 'unknown'] as const;

/** The home screen: every camera as a lane, how far it got, what stands in the way, its one next step. */
export function CamerasPage() {
  const site = useAppSelector(selectSite);
  const lanes = useAppSelector(selectLanes);
  const byId = useAppSelector(selectLanesById);
  const isPhone = useMedia('(max-width: 767px)');
  const siteId = useSiteId();
  const navigate = useNavigate();
  const [isAdding, setIsAdding] = useState(false);
  const [search, setSearch] = useSearchParams();
  const filter = filterOf(search);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(NONE);
  const goNext = useNextStep();

  if (site.cameras.length === 0) return <NoCameras />;
  const all = site.cameras.flatMap((camera): LaneRow[] => {
    const lane = byId[camera.id]; // one that was just added is judged in a moment
    return lane
      ? [
          {
            lane,
            name: camera.name,
            model: modelOf(site, camera),
            place: camera.place,
            to: `/site/${siteId}/camera/${camera.id}/${opensAt(lane)}`,
          },
        ]
      : [];
  });
  const rows = rowsOf(all, filter, site);
  const cameras = site.cameras.filter(({ id }) => chosen.has(id));
  const choose = (cameraId: string, isChosen: boolean): void => {
    const next = new Set(chosen);
    if (isChosen) next.add(cameraId);
    else next.delete(cameraId);
    setChosen(next);
  };
  const stopped = lanes.filter((lane) => lane.worst?.severity === 'stop').length;
  const done = lanes.filter((lane) => lane.standsAt === null).length;
  return (
    <>
      <header className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 tabIndex={-1} className="text-title outline-none">
          Cameras
        </h1>
        <p className="text-soft">
          {sayMany(site.cameras.length, 'camera')} · {done} handed over
          {stopped > 0 && (
            <>
              {' · '}
              <span className="text-brick">{stopped} stopped</span>
            </>
          )}
        </p>
        <span className="ml-auto flex flex-wrap justify-end gap-2">
          <ProbeAllButton />
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

      <ProbeAllLine />
      {site.cameras.length > 1 && (
        <CamerasBar
          filter={filter}
          shown={rows.length}
          onFilter={(next) => setSearch(searchOf(next), { replace: true })}
        />
      )}
      {cameras.length > 0 && (
        <ChosenBar
          cameras={cameras}
          onNone={() => setChosen(NONE)}
          onAll={() => setChosen(new Set(rows.map(({ lane }) => lane.cameraId)))}
        />
      )}
      {rows.length === 0 ? (
        <p className="border border-hair bg-sheet px-4 py-6 text-soft">
          No camera matches. Remove a filter, or show all.
        </p>
      ) : isPhone ? (
        <LaneCards rows={rows} chosen={chosen} onChoose={choose} />
      ) : (
        <LaneTable rows={rows} chosen={chosen} onChoose={choose} />
      )}

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
          station of this camera
        </span>
        <span className="md:ml-auto">Dial only equipment that is yours or that you are asked to work on.</span>
      </footer>

      <DialogFrame
        title="Add a camera"
        description="Paste its stream URL, type its address, or only name the place; the rest can wait."
        isOpen={isAdding}
        onOpenChange={setIsAdding}
      >
        <AddCameraForm onAdded={(cameraId, hangs) => void navigate(stationPath(siteId, cameraId, startOf(hangs)))} />
      </DialogFrame>
    </>
  );
}
