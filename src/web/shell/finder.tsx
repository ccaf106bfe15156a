import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useNavigate } from 'react-router';
import type { Finding } from '../../core/findings/finding.ts';
import { opensAt } from '../../core/lanes/lane-types.ts';
import { modelOf } from '../../core/site/model-of.ts';
import { pathOfPlace } from '../places/place.ts';
import { placesOf } from '../places/registry.ts';
import { selectLanes, selectLanesById } from '../store/lanes-slice.ts';
import { selectServer } from '../store/server-slice.ts';
import { editRedone, editUndone, selectRedoLabel, selectSite, selectUndoLabel } from '../store/site-slice.ts';
import { slipAsked } from '../store/slip-slice.ts';
import { stationPath } from '../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { useCarryOut, useMends } from '../things/finding/index.ts';
import { fileNameOf } from '../ui/download.ts';
import { exportOpenSite } from './export-open-site.ts';

interface Found {
  readonly id: string;
  readonly label: string;
  /** What else it is found by, and shown small. */
  readonly beside: string;
  readonly act: () => void;
}

/** What is looked for stands in it, word by word; letters scattered over it are no match. Names that begin so come first. */
function scoreOf(value: string, search: string): number {
  const [text, ...words] = [value.toLowerCase(), ...search.toLowerCase().trim().split(/\s+/)];
  if (!words.every((word) => text.includes(word))) return 0;
  const first = words[0] ?? '';
  return text.includes(` ${first}`) || text.startsWith(first) ? 1 : 0.5;
}

/** Above this many cameras their stations are left out: the list would only grow longer. */
const CAMERAS_WITH_STATIONS = 60;

const ITEM =
  'flex min-h-8 cursor-pointer items-baseline gap-3 px-4 py-1 data-[selected=true]:bg-verdigris-wash pointer-coarse:min-h-11 pointer-coarse:items-center';

interface MendItemProps {
  readonly cameraId: string;
  readonly name: string;
  readonly worst: Finding;
  readonly onDone: () => void;
}

/** The worst finding of a camera with what one touch would mend; not there where core knows nothing. */
function MendItem({ cameraId, name, worst, onDone }: MendItemProps) {
  const [mend] = useMends(cameraId, [worst.rule]).get(worst.rule) ?? [];
  const carryOut = useCarryOut();
  if (!mend) return null;
  return (
    <Command.Item
      value={`${name} ${worst.title} ${mend.text}`}
      onSelect={() => {
        onDone();
        carryOut(mend);
      }}
      className={ITEM}
    >
      <span>
        {name}: {mend.text}
      </span>
      <span className="ml-auto truncate text-small text-soft">{worst.title}</span>
    </Command.Item>
  );
}

/** `/`: everything by its name. Cameras with their address, the stations of each, destinations, places and acts. */
export function Finder({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const site = useAppSelector(selectSite);
  const { network } = useAppSelector(selectServer);
  const lanes = useAppSelector(selectLanes);
  const byId = useAppSelector(selectLanesById);
  const undo = useAppSelector(selectUndoLabel);
  const redo = useAppSelector(selectRedoLabel);
  const root = `/site/${site.id}`;
  const go = (to: string) => () => void navigate(to);

  const cameras: Found[] = site.cameras.map((camera) => ({
    id: camera.id,
    label: camera.name,
    beside: `${modelOf(site, camera)} ${camera.host}`,
    act: go(`${root}/camera/${camera.id}/${byId[camera.id] ? opensAt(byId[camera.id]) : ''}`),
  }));
  const stations: Found[] = site.cameras.flatMap((camera) =>
    (byId[camera.id]?.stations ?? []).map(({ station, name }) => ({
      id: `${camera.id} ${station}`,
      label: `${camera.name}: ${name}`,
      beside: '',
      act: go(stationPath(site.id, camera.id, station)),
    })),
  );
  const destinations: Found[] = site.destinations.flatMap((destination) => {
    const tap = site.taps.find(({ destinationId }) => destinationId === destination.id);
    const camera = tap?.cameraId ?? site.cameras[0]?.id;
    return camera === undefined
      ? []
      : [
          {
            id: destination.id,
            label: destination.name,
            beside: tap ? 'its first destination' : 'no destination yet',
            act: go(stationPath(site.id, camera, tap ? 'hand-over' : 'tap')),
          },
        ];
  });
  const acts: Found[] = [
    ...placesOf(network).map((place) => ({
      id: place.id,
      label: place.name,
      beside: '',
      act: go(pathOfPlace(site.id, place)),
    })),
    { id: 'new-camera', label: 'Add a camera', beside: '', act: () => dispatch(slipAsked('camera')) },
    {
      id: 'new-gear',
      label: 'New gear',
      beside: 'switch, access point, power supply …',
      act: () => dispatch(slipAsked('gear')),
    },
    {
      id: 'new-destination',
      label: 'New destination',
      beside: 'hub, recorder, viewer, relay',
      act: () => dispatch(slipAsked('destination')),
    },
    { id: 'cards', label: 'Model cards', beside: '', act: () => dispatch(slipAsked('cards')) },
    { id: 'site', label: 'This site: name, notes, copy, remove', beside: '', act: () => dispatch(slipAsked('site')) },
    { id: 'assumptions', label: 'Assumptions', beside: '', act: () => dispatch(slipAsked('assumptions')) },
    { id: 'vault', label: 'Passwords: keep, lock, unlock', beside: '', act: () => dispatch(slipAsked('vault')) },
    { id: 'shortcuts', label: 'Keyboard shortcuts', beside: '', act: () => dispatch(slipAsked('shortcuts')) },
    {
      id: 'export',
      label: 'Export this site',
      beside: `${fileNameOf(site.name)}.cleartap.json`,
      act: () => void exportOpenSite(),
    },
    ...(undo === null ? [] : [{ id: 'undo', label: 'Undo', beside: undo, act: () => void dispatch(editUndone()) }]),
    ...(redo === null ? [] : [{ id: 'redo', label: 'Redo', beside: redo, act: () => void dispatch(editRedone()) }]),
  ];

  const group = (heading: string, found: readonly Found[]) =>
    found.length > 0 && (
      <Command.Group heading={heading}>
        {found.map(({ id, label, beside, act }) => (
          <Command.Item
            key={id}
            value={`${label} ${beside} ${id}`}
            onSelect={() => {
              onClose();
              act();
            }}
            className={ITEM}
          >
            <span>{label}</span>
            <span className="ml-auto truncate text-small text-soft">{beside}</span>
          </Command.Item>
        ))}
      </Command.Group>
    );

  return (
    <Dialog.Root open onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-veil" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-0 top-0 z-30 border border-ink bg-sheet md:inset-x-auto md:top-20 md:left-1/2 md:w-[560px] md:-translate-x-1/2"
        >
          <Dialog.Title className="sr-only">Find</Dialog.Title>
          <Command label="Find" filter={scoreOf} className="flex flex-col">
            <Command.Input
              autoFocus
              placeholder="Name of a camera, an address, a command"
              className="min-h-11 border-b border-hair bg-sheet px-4 outline-none focus-visible:outline-none"
            />
            <Command.List className="max-h-[60dvh] overflow-auto pb-2 [&_[cmdk-group-heading]]:px-4 [&_[cmdk-group-heading]]:pt-3 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-small [&_[cmdk-group-heading]]:text-soft">
              <Command.Empty className="px-4 py-3 text-soft">Nothing found.</Command.Empty>
              {group('Cameras', cameras)}
              {group('Destinations', destinations)}
              {group('Commands', acts)}
              {cameras.length <= CAMERAS_WITH_STATIONS && (
                <>
                  <Command.Group heading="Remedies">
                    {lanes.map(
                      ({ cameraId, worst }) =>
                        worst && (
                          <MendItem
                            key={cameraId}
                            cameraId={cameraId}
                            name={site.cameras.find(({ id }) => id === cameraId)?.name ?? cameraId}
                            worst={worst}
                            onDone={onClose}
                          />
                        ),
                    )}
                  </Command.Group>
                  {group('Stations', stations)}
                </>
              )}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
