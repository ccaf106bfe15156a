import { useDraggable } from '@dnd-kit/core';
import { memo, useDeferredValue, useMemo, useState } from 'react';
import { Link as RouterLink, useParams } from 'react-router';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { type Point, WALL_MATERIALS, type Wall, wallAsLong, wallLengthM } from '../../../core/base/plan-geometry.ts';
import { between } from '../../../core/base/range.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import { streamFacts } from '../../../core/document/best-known.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Destination } from '../../../core/document/chapters/destinations/destination.ts';
import type { Gear } from '../../../core/document/chapters/gear/gear.ts';
import { LINK_RANGES, type Link } from '../../../core/document/chapters/links/link.ts';
import { NORTH_DEG, SHEET_SIDE_M } from '../../../core/document/chapters/plan/drawn-plan.ts';
import { cameraSubject, destinationSubject, gearSubject, linkSubject } from '../../../core/document/subject.ts';
import { nameOfSubject, thingsOf } from '../../../core/document/subjects.ts';
import { mountingOf } from '../../../core/stations/choose/need.ts';
import {
  type LinkLength,
  lengthOf,
  linkLength,
  sayLength,
  sayLengthHow,
} from '../../../core/stations/power/link-length.ts';
import { PowerJudge } from '../../../core/stations/power/power-judgement.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { DestinationDialog } from '../../things/destination/destination-dialog.tsx';
import { GearDialog } from '../../things/gear/gear-dialog.tsx';
import { Joins } from '../../things/link/joins.tsx';
import { LinkDialog } from '../../things/link/link-dialog.tsx';
import { ThingActs } from '../../things/thing/thing-acts.tsx';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { RangeField } from '../../ui/range-field.tsx';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { useDraft } from '../../ui/use-draft.ts';

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
              Its figures
            </Button>
          )}
          {wall && <WallSide key={wall.id} wall={wall} onGone={() => props.onSelect(null)} />}
          {destination && (
            <Button className="mt-2" onClick={() => setEditedDestination(destination)}>
              Its figures
            </Button>
          )}
          {link && (
            <CableSide link={link} drawnRoute={props.drawnRoute} onRoute={props.onRoute} onRemove={props.onRemove} />
          )}
          {!link && props.isRouting && <p className="text-soft">Choose below which cable is to be drawn.</p>}
        </Panel>
      )}
      {!selected &&
        !props.isRouting &&
        (site.plan.picture ? (
          <Panel title="Sheet">
            <NorthField />
          </Panel>
        ) : (
          <SheetSize />
        ))}
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
          <p className="text-soft">Everything has its place.</p>
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

/** Without a picture the sheet is as large as one says. */
function SheetSize() {
  const dispatch = useAppDispatch();
  const { plan } = useAppSelector(selectSite);
  const set = (size: { widthM: number } | { heightM: number }): void =>
    void dispatch(commandIssued({ kind: 'setPlan', plan: { ...plan, ...size }, what: 'size of the sheet changed' }));
  return (
    <Panel title="Sheet">
      <div className="grid grid-cols-2 gap-3">
        <NumberField
          label="Width, m"
          value={plan.widthM}
          range={SHEET_SIDE_M}
          onKeep={(widthM) => set({ widthM: widthM ?? 40 })}
        />
        <NumberField
          label="Height, m"
          value={plan.heightM}
          range={SHEET_SIDE_M}
          onKeep={(heightM) => set({ heightM: heightM ?? 26 })}
        />
        <NorthField />
      </div>
    </Panel>
  );
}

/** The arrow of the north, which those who mount go by. */
function NorthField() {
  const dispatch = useAppDispatch();
  const { plan } = useAppSelector(selectSite);
  return (
    <NumberField
      label="North lies, °"
      value={plan.northDeg}
      range={NORTH_DEG}
      isOptional
      hint="0 up, clockwise"
      onKeep={(northDeg) =>
        void dispatch(commandIssued({ kind: 'setPlan', plan: { ...plan, northDeg }, what: 'north set' }))
      }
    />
  );
}

/** A wall: what it is called, of what it is, how long somebody taped it. */
function WallSide({ wall, onGone }: { wall: Wall; onGone: () => void }) {
  const dispatch = useAppDispatch();
  const [name, setName] = useState(wall.name);
  const put = (changed: Wall): void => void dispatch(commandIssued({ kind: 'putWall', wall: changed }));
  return (
    <div className="flex flex-col gap-2">
      <TextField
        label="Name"
        placeholder="garden wall"
        maxLength={TEXT_LIMITS.name}
        value={name}
        onChange={(event) => setName(event.target.value)}
        onBlur={() => name.trim() !== wall.name && put({ ...wall, name: name.trim() })}
      />
      <div className="grid grid-cols-2 gap-2">
        <SelectField
          label="Of"
          value={wall.material}
          onChange={(value) => put({ ...wall, material: WALL_MATERIALS.find((one) => one === value) ?? wall.material })}
          options={WALL_MATERIALS.map((value) => ({ value, label: value }))}
        />
        <NumberField
          label="Length, m"
          value={wallLengthM(wall)}
          range={WALL_LENGTH_M}
          digits={2}
          hint="its far end moves"
          onKeep={(lengthM) => lengthM !== null && put(wallAsLong(wall, lengthM))}
        />
      </div>
      <ThingActs kind="wall" id={wall.id} onGone={onGone} />
    </div>
  );
}
const WALL_LENGTH_M = between(0.1, 1000, 'm');

type CableListProps = Pick<PlanSideProps, 'selected' | 'isRouting' | 'onSelect' | 'onRoute'>;

/** Every cable with its length. A large site has hundreds: each row is drawn anew only with what it shows. */
function CableList({ selected, isRouting, onSelect, onRoute }: CableListProps) {
  const links = useAppSelector((state) => selectSite(state).links);
  // Names may come a moment after where things stand: the list is long, and dragging waits for it.
  const site = useDeferredValue(useAppSelector(selectSite));
  const act = isRouting ? onRoute : onSelect;
  const chosen = selected?.startsWith('link:') ? selected : null;
  const rows = useMemo(() => {
    const things = new Map(thingsOf(site).map(({ subject, item }) => [subject, item]));
    return links
      .filter(({ medium }) => medium !== 'wifi')
      .map((link) => (
        <CableRow
          key={link.id}
          id={link.id}
          ends={link.name || `${things.get(link.from)?.name} – ${things.get(link.to)?.name}`}
          length={lengthOf(link, (subject) => things.get(subject)?.position ?? null, site.assumptions)}
          isSelected={chosen === linkSubject(link.id)}
          isRouting={isRouting}
          onAct={act}
        />
      ));
  }, [links, site, chosen, isRouting, act]);
  return (
    <Panel title="Cables" aside="a drawn one measures itself">
      <ul className="flex max-h-64 flex-col overflow-auto">
        {rows}
        {rows.length === 0 && <li className="text-soft">Select gear on the plan and join it to more.</li>}
      </ul>
    </Panel>
  );
}

interface CableRowProps {
  readonly id: string;
  readonly ends: string;
  readonly length: LinkLength | null;
  readonly isSelected: boolean;
  readonly isRouting: boolean;
  readonly onAct: (id: string) => void;
}

const CableRow = memo(function CableRow({ id, ends, length, isSelected, isRouting, onAct }: CableRowProps) {
  return (
    <li className="flex items-baseline gap-2 border-b border-hair py-1 last:border-b-0">
      <button
        type="button"
        aria-pressed={isSelected}
        onClick={() => onAct(isRouting ? id : linkSubject(id))}
        className={`flex-1 text-left hover:underline pointer-coarse:min-h-11 ${isSelected ? 'font-strong' : ''}`}
      >
        {ends}
      </button>
      <span className="font-mono text-small whitespace-nowrap">{length ? sayLength(length) : '–'}</span>
      <span className="w-14 text-right text-small text-soft">{length?.how ?? 'not known'}</span>
    </li>
  );
});

function CameraSide({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const { assumptions } = useAppSelector(selectSite);
  const { siteId } = useParams();
  const mounting = mountingOf(camera, assumptions);
  const heading = useDraft(mounting.headingDeg, (headingDeg) => {
    if (headingDeg !== mounting.headingDeg)
      dispatch(commandIssued({ kind: 'setMounting', cameraId: camera.id, mounting: { ...mounting, headingDeg } }));
  });
  return (
    <div className="flex flex-col gap-2">
      <RangeField
        label="Looks towards"
        value={(heading.value + 360) % 360}
        min={0}
        max={355}
        step={5}
        said={`${(heading.value + 360) % 360}°`}
        onHold={heading.hold}
        onLetGo={heading.letGo}
      />
      <p className="text-small text-soft">
        0° to the right, clockwise. {mounting.heightM} m high, {mounting.tiltDownDeg}° down.
      </p>
      <span className="flex gap-4">
        {(['choose', 'power'] as const).map((station) => (
          <RouterLink
            key={station}
            to={`/site/${siteId}/camera/${camera.id}/${station}`}
            className="font-strong text-verdigris hover:underline"
          >
            {station === 'choose' ? 'Choose' : 'Power'}&nbsp;→
          </RouterLink>
        ))}
      </span>
    </div>
  );
}

interface CableSideProps {
  readonly link: Link;
  readonly drawnRoute: readonly Point[] | null;
  readonly onRoute: (linkId: string) => void;
  readonly onRemove: () => void;
}

/** A cable with what is left at its end, as drawn at this moment: every corner changes the voltage. */
function CableSide({ link, drawnRoute, onRoute, onRemove }: CableSideProps) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const drawn = useMemo(
    () => (drawnRoute && drawnRoute.length > 1 ? { ...link, route: drawnRoute } : link),
    [link, drawnRoute],
  );
  const judgement = useMemo(() => {
    const links = site.links.map((other) => (other.id === link.id ? drawn : other));
    const judge = new PowerJudge({ ...site, links }, (stream) => streamFacts(index, stream), index);
    const camera = site.cameras.find(({ id }) => cameraSubject(id) === link.to);
    return camera && judge.feedLinkOf(camera)?.id === link.id ? judge.judge(camera) : null;
  }, [site, index, link.id, link.to, drawn]);
  const [isEdited, setIsEdited] = useState(false);
  const volts = judgement?.run ? judgement.run.nightVolts : (judgement?.cable?.loadVolts ?? null);
  const verdict = judgement?.run?.verdict ?? judgement?.cable?.verdict ?? null;
  return (
    <div className="flex flex-col gap-2">
      <p>
        {nameOfSubject(site, link.from)} to {nameOfSubject(site, link.to)}
      </p>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        <dt className="text-soft">length</dt>
        <dd className="font-mono">
          {sayLength(linkLength(site, drawn))}, {sayLengthHow(linkLength(site, drawn))}
        </dd>
        {verdict && (
          <>
            <dt className="text-soft">at its end</dt>
            <dd className="flex items-center gap-1.5">
              <Drop verdict={verdict} size={16} label={VERDICT_WORDS[verdict]} />
              <output className="font-mono font-strong">{volts === null ? 'nothing' : `${volts.toFixed(2)} V`}</output>
              <span className="text-small text-soft">{judgement?.run ? 'at night' : ''}</span>
            </dd>
          </>
        )}
      </dl>
      <NumberField
        label="Risers, slack, loops, m"
        value={link.extraM}
        range={LINK_RANGES.lengthM}
        onKeep={(extraM) => void dispatch(commandIssued({ kind: 'putLink', link: { ...link, extraM: extraM ?? 0 } }))}
      />
      <span className="flex flex-wrap gap-2">
        <Button onClick={() => setIsEdited(true)}>Its figures</Button>
        {!drawnRoute && (
          <Button onClick={() => onRoute(link.id)}>{link.route ? 'Draw it anew' : 'Draw its route'}</Button>
        )}
        {link.route && !drawnRoute && (
          <Button kind="quiet" onClick={onRemove}>
            Take the drawing away
          </Button>
        )}
      </span>
      {isEdited && <LinkDialog link={link} onClose={() => setIsEdited(false)} />}
    </div>
  );
}
