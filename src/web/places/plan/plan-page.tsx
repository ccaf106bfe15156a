import { DndContext, DragOverlay, MouseSensor, pointerWithin, TouchSensor, useSensor, useSensors } from '@dnd-kit/core';
import type Konva from 'konva';
import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Point, Wall, WallMaterial } from '../../../core/base/plan-geometry.ts';
import { sayMany } from '../../../core/base/say.ts';
import { type Verdict, worstVerdict } from '../../../core/base/verdict.ts';
import { cameraSubject, linkSubject } from '../../../core/document/subject.ts';
import { positionOf } from '../../../core/document/subjects.ts';
import { selectLanes } from '../../store/lanes-slice.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { LevelLegend } from '../../things/levels/level-legend.tsx';
import { useChartColours } from '../../ui/chart-colours.ts';
import { PlanBar } from './plan-bar.tsx';
import { PlanCanvas } from './plan-canvas.tsx';
import { PlanOut } from './plan-out.tsx';
import { PlanSide } from './plan-side.tsx';
import { type Drawing, NOTHING_DRAWN, type Tool } from './plan-tools.ts';
import { ScaleDialog } from './scale-dialog.tsx';
import type { WedgeHandle } from './views-sheet.tsx';

/** The site drawn to scale: what stands where, what is seen, how the cables run. */
export function PlanPage() {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  // How the cameras fare may come a moment after where they stand.
  const lanes = useDeferredValue(useAppSelector(selectLanes));
  const [asked] = useSearchParams();
  const routed = asked.get('route');
  const [tool, setTool] = useState<Tool>(routed ? 'route' : 'move');
  const [selected, setSelected] = useState<string | null>(routed ? linkSubject(routed) : null);
  const [drawing, setDrawing] = useState<Drawing>(NOTHING_DRAWN);
  const [material, setMaterial] = useState<WallMaterial>('brick');
  const [zoom, setZoom] = useState(1);
  const [scaled, setScaled] = useState<readonly [Point, Point] | null>(null);
  const stage = useRef<Konva.Stage>(null);
  const wedges = useRef<WedgeHandle>(null);
  const colours = useChartColours();
  // A press is a press until it is drawn away; a finger first rests, so that the page can still be scrolled.
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 8 } }),
  );
  /** The name of what is dragged from the list. */
  const [held, setHeld] = useState<string | null>(null);

  const link = selected?.startsWith('link:') ? site.links.find(({ id }) => linkSubject(id) === selected) : undefined;
  const ends = link ? { from: positionOf(site, link.from), to: positionOf(site, link.to) } : null;
  const verdicts = useMemo(
    () =>
      new Map(
        lanes.map(({ cameraId, stations }): [string, Verdict] => [
          cameraId,
          worstVerdict(
            stations.filter(({ station }) => station === 'choose' || station === 'power').map(({ verdict }) => verdict),
          ),
        ]),
      ),
    [lanes],
  );

  const pickTool = (next: Tool): void => {
    setTool(next);
    setDrawing(NOTHING_DRAWN);
  };
  const routeTo = useCallback((linkId: string) => {
    setSelected(linkSubject(linkId));
    setTool('route');
    setDrawing(NOTHING_DRAWN);
  }, []);
  /** A route begins where the cable is plugged in, and ends at what it feeds. */
  const routeOf = (points: readonly Point[]): readonly Point[] =>
    ends?.from && ends.to ? [ends.from, ...points, ends.to] : points;

  const onPoint = (point: Point): void => {
    const last = drawing.points.at(-1);
    if (last && last.xM === point.xM && last.yM === point.yM) return;
    const points = [...drawing.points, point];
    if (tool === 'scale' && points.length === 2) {
      const [a, b] = points;
      if (a && b) setScaled([a, b]);
      setDrawing(NOTHING_DRAWN);
    } else setDrawing({ points, cursor: point });
  };
  const onEnd = (): void => {
    if (tool === 'wall' && drawing.points.length > 1) {
      const walls: Wall[] = drawing.points
        .slice(1)
        .map((to, at) => ({ id: newId('wall'), from: drawing.points[at] ?? to, to, material }));
      const what = `${sayMany(walls.length, 'wall')} of ${material} drawn`;
      dispatch(commandIssued({ kind: 'setPlan', plan: { ...site.plan, walls: [...site.plan.walls, ...walls] }, what }));
    }
    if (tool === 'route' && link) {
      const route = routeOf(drawing.points);
      if (route.length > 1) dispatch(commandIssued({ kind: 'putLink', link: { ...link, route } }));
      setTool('move');
    }
    setDrawing(NOTHING_DRAWN);
  };
  const onRemove = (): void => {
    if (!selected) return;
    if (selected.startsWith('wall:')) {
      const walls = site.plan.walls.filter(({ id }) => `wall:${id}` !== selected);
      dispatch(commandIssued({ kind: 'setPlan', plan: { ...site.plan, walls }, what: 'a wall taken away' }));
    } else if (link) dispatch(commandIssued({ kind: 'putLink', link: { ...link, route: null } }));
    else dispatch(commandIssued({ kind: 'place', subject: selected, position: null }));
    setSelected(null);
  };
  // The same function for the whole visit: with a new one every item of the plan would be drawn anew.
  const cameras = useRef(site.cameras);
  cameras.current = site.cameras;
  const onDrag = useCallback((subject: string, position: Point) => {
    const camera = cameras.current.find(({ id }) => cameraSubject(id) === subject);
    if (camera) wedges.current?.follow(camera, position);
  }, []);
  const place = useCallback(
    (subject: string, position: Point) => void dispatch(commandIssued({ kind: 'place', subject, position })),
    [dispatch],
  );
  const verdictOf = (cameraId: string): Verdict => verdicts.get(cameraId) ?? 'unknown';
  const drawnRoute =
    tool === 'route' && link ? routeOf(drawing.cursor ? [...drawing.points, drawing.cursor] : drawing.points) : null;

  return (
    <>
      <header className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-title">Plan</h1>
        <p className="text-soft">
          {site.plan.widthM.toFixed(0)} × {site.plan.heightM.toFixed(0)} m
          {site.plan.picture && !site.plan.picture.isScaled && (
            <span className="text-brass"> · its scale is not set yet</span>
          )}
        </p>
        <PlanOut site={site} wedges={wedges} stage={stage} />
      </header>
      <DndContext
        sensors={sensors}
        collisionDetection={pointerWithin}
        autoScroll={false}
        onDragStart={({ active }) => setHeld(String(active.data.current?.name ?? ''))}
        onDragEnd={() => setHeld(null)}
        onDragCancel={() => setHeld(null)}
      >
        <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,1fr)_320px]">
          <div className="no-print min-w-0">
            <PlanBar
              tool={tool}
              onTool={pickTool}
              material={material}
              onMaterial={setMaterial}
              zoom={zoom}
              onZoom={setZoom}
              isDrawing={drawing.points.length > 0 || (tool === 'route' && link !== undefined)}
              onEnd={onEnd}
            />
            <PlanCanvas
              stageRef={stage}
              site={site}
              wedgeHandle={wedges}
              verdictOf={verdictOf}
              tool={tool}
              drawing={
                tool === 'route'
                  ? { ...drawing, points: link && ends?.from ? [ends.from, ...drawing.points] : drawing.points }
                  : drawing
              }
              selected={selected}
              zoom={zoom}
              colours={colours}
              onSelect={setSelected}
              onDrag={onDrag}
              onDrop={place}
              onPoint={onPoint}
              onCursor={(cursor) => setDrawing((before) => ({ ...before, cursor }))}
              onEnd={onEnd}
              onCancel={() => pickTool('move')}
              onRemove={onRemove}
              onBrought={(subject, position) => {
                place(subject, position);
                setSelected(subject);
              }}
            />
            <LevelLegend />
          </div>
          <PlanSide
            selected={selected}
            drawnRoute={drawnRoute}
            isRouting={tool === 'route'}
            onSelect={setSelected}
            onRoute={routeTo}
            onRemove={onRemove}
            onPlace={place}
          />
        </div>
        <DragOverlay dropAnimation={null}>
          {held !== null && <span className="rounded-control border border-ink bg-sheet px-2 py-1">{held}</span>}
        </DragOverlay>
      </DndContext>
      {scaled && (
        <ScaleDialog
          points={scaled}
          plan={site.plan}
          onClose={() => setScaled(null)}
          onScale={(factor) => {
            dispatch(commandIssued({ kind: 'scalePlan', factor }));
            setScaled(null);
            pickTool('move');
          }}
        />
      )}
    </>
  );
}
