import { useDraggable } from '@dnd-kit/core';
import { useState } from 'react';
import type { Point } from '../../../core/base/plan-geometry.ts';
import type { Destination } from '../../../core/document/chapters/destinations/destination.ts';
import type { Gear } from '../../../core/document/chapters/gear/gear.ts';
import { cameraSubject, destinationSubject, gearSubject, linkSubject } from '../../../core/document/subject.ts';
import { nameOfSubject, thingsOf } from '../../../core/document/subjects.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { DestinationDialog } from '../../things/destination/index.ts';
import { GearDialog } from '../../things/gear/index.ts';
import { Joins } from '../../things/link/index.ts';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { CableList } from './cable-list.tsx';
import { CableSide } from './cable-side.tsx';
import { CameraSide } from './camera-side.tsx';
import { SheetSide } from './sheet-side.tsx';
import { WallSide } from './wall-side.tsx';

interface PlanSideProps {
  readonly selected: string | null;
  /** The route as it is drawn at this moment. */
  readonly drawnRoute: readonly Point[] | null;
  readonly isRouting: boolean;
  readonly onSelect: (subject: string | null) => void;
  readonly onRoute: (linkId: string) => void;
  readonly onRemove: () => void;
  /** The next presses on the sheet put these down, one after the other. */
  readonly onPlace: (subjects: readonly string[]) => void;
}

/** Beside the sheet: what is selected and its numbers, the cables that can be drawn, what has no place yet. */
export function PlanSide(props: PlanSideProps) {
  const { selected } = props;
  const site = useAppSelector(selectSite);
  const [edited, setEdited] = useState<Gear | 'new' | null>(null);
  const [editedDestination, setEditedDestination] = useState<Destination | 'new' | null>(null);
  const destination = site.destinations.find(({ id }) => destinationSubject(id) === selected);
  const camera = site.cameras.find(({ id }) => cameraSubject(id) === selected);
  const gear = site.gear.find(({ id }) => gearSubject(id) === selected);
  const link = site.links.find(({ id }) => linkSubject(id) === selected);
  const unplaced = thingsOf(site).filter(({ item }) => item.position === null);
  const wall = site.plan.walls.find(({ id }) => `wall:${id}` === selected);
  return (
    <div className="no-print flex min-w-0 flex-col gap-4">
      {(selected || props.isRouting) && (
        <Panel
          title={
            selected
              ? link
                ? 'Cable'
                : selected.startsWith('wall:')
                  ? 'Wall'
                  : nameOfSubject(site, selected)
              : 'Cable route'
          }
          actions={selected && !link && !wall ? <Button onClick={props.onRemove}>Off the plan</Button> : undefined}
        >
          {camera && <CameraSide camera={camera} />}
          {(gear || selected?.startsWith('destination:')) && selected && <Joins key={selected} subject={selected} />}
          {gear && (
            <Button className="mt-2" onClick={() => setEdited(gear)}>
              Edit
            </Button>
          )}
          {wall && <WallSide key={wall.id} wall={wall} onGone={() => props.onSelect(null)} />}
          {destination && (
            <Button className="mt-2" onClick={() => setEditedDestination(destination)}>
              Edit
            </Button>
          )}
          {link && (
            <CableSide link={link} drawnRoute={props.drawnRoute} onRoute={props.onRoute} onRemove={props.onRemove} />
          )}
          {!link && props.isRouting && <p className="text-soft">Choose below which cable to draw.</p>}
        </Panel>
      )}
      {!selected && !props.isRouting && <SheetSide />}
      <CableList selected={selected} isRouting={props.isRouting} onSelect={props.onSelect} onRoute={props.onRoute} />
      <Panel
        title="Not on the plan"
        actions={
          <>
            {unplaced.length > 1 && (
              <Button onClick={() => props.onPlace(unplaced.map(({ subject }) => subject))}>
                Place all, one by one
              </Button>
            )}
            <Button onClick={() => setEdited('new')}>New gear</Button>
            <Button onClick={() => setEditedDestination('new')}>New destination</Button>
          </>
        }
      >
        {unplaced.length === 0 ? (
          <p className="text-soft">Everything is placed.</p>
        ) : (
          <ul className="flex max-h-96 flex-col overflow-auto">
            {unplaced.map(({ subject, item }) => (
              <UnplacedRow key={subject} subject={subject} name={item.name} onPlace={() => props.onPlace([subject])} />
            ))}
          </ul>
        )}
      </Panel>
      <DestinationDialog
        edited={editedDestination}
        onClose={() => setEditedDestination(null)}
        onCreated={(id) => props.onSelect(destinationSubject(id))}
      />
      {edited !== null && (
        <GearDialog
          edited={edited}
          onClose={() => setEdited(null)}
          onKept={(kept) => props.onSelect(gearSubject(kept.id))}
        />
      )}
    </div>
  );
}

/** It is dragged onto the sheet, by mouse or by finger, or put down by the next press on it. */
function UnplacedRow({ subject, name, onPlace }: { subject: string; name: string; onPlace: () => void }) {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: subject, data: { name } });
  return (
    <li
      ref={setNodeRef}
      {...listeners}
      className={`flex cursor-grab items-center gap-2 border-b border-hair py-1 last:border-b-0 ${isDragging ? 'opacity-50' : ''}`}
    >
      <span className="flex-1">{name}</span>
      <Button className="text-small" aria-label={`Place ${name}`} onClick={onPlace}>
        Place
      </Button>
    </li>
  );
}
