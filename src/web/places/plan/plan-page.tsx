import { DndContext, DragOverlay, MouseSensor, pointerWithin, TouchSensor, useSensor, useSensors } from '@dnd-kit/core';
import type Konva from 'konva';
import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react';
import type { Point } from '../../../core/base/plan-geometry.ts';
import { type Verdict, worstVerdict } from '../../../core/base/verdict.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import { nameOfSubject } from '../../../core/document/subjects.ts';
import { STATION_PAGES } from '../../stations/registry.ts';
import { selectLanes } from '../../store/lanes-slice.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { LevelLegend } from '../../things/levels/index.ts';
import { useChartColours } from '../../ui/chart-colours.ts';
import { PlanBar } from './plan-bar.tsx';
import { PlanCanvas } from './plan-canvas.tsx';
import { PlanOut } from './plan-out.tsx';
import { PlanSide } from './plan-side.tsx';
import { ScaleDialog } from './scale-dialog.tsx';
import { usePlanDrawing } from './use-plan-drawing.ts';
import type { WedgeHandle } from './views-sheet.tsx';

/** The site drawn to scale: what stands where, what is seen, how the cables run. */
export function PlanPage() {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  // How the cameras fare may come a moment after where they stand.
  const lanes = useDeferredValue(useAppSelector(selectLanes));
  const [zoom, setZoom] = useState(1);
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

  const hand = usePlanDrawing(site);
  const verdicts = useMemo(
    () =>
      new Map(
        lanes.map(({ cameraId, stations }): [string, Verdict] => [
          cameraId,
          worstVerdict(stations.filter(({ station }) => STATION_PAGES[station].isOnPlan).map(({ verdict }) => verdict)),
        ]),
      ),
    [lanes],
  );

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
              tool={hand.tool}
              onTool={hand.pickTool}
              material={hand.material}
              onMaterial={hand.setMaterial}
              zoom={zoom}
              onZoom={setZoom}
              isDrawing={hand.isDrawing}
              placing={hand.placing === null ? null : nameOfSubject(site, hand.placing)}
              onEnd={hand.onEnd}
              onCancel={() => hand.pickTool('move')}
            />
            <PlanCanvas
              stageRef={stage}
              site={site}
              wedgeHandle={wedges}
              verdictOf={verdictOf}
              tool={hand.tool}
              placing={hand.placing}
              drawing={hand.shown}
              selected={hand.selected}
              zoom={zoom}
              onZoom={setZoom}
              colours={colours}
              onSelect={hand.select}
              onDrag={onDrag}
              onDrop={place}
              onPoint={hand.onPoint}
              onCursor={hand.onCursor}
              onEnd={hand.onEnd}
              onCancel={() => hand.pickTool('move')}
              onRemove={hand.onRemove}
              onBrought={(subject, position) => {
                place(subject, position);
                hand.select(subject);
              }}
            />
            <LevelLegend />
          </div>
          <PlanSide
            selected={hand.selected}
            drawnRoute={hand.drawnRoute}
            isRouting={hand.tool === 'route'}
            onSelect={hand.select}
            onRoute={hand.routeTo}
            onRemove={hand.onRemove}
            onPlace={hand.placeNext}
          />
        </div>
        <DragOverlay dropAnimation={null}>
          {held !== null && <span className="rounded-control border border-ink bg-sheet px-2 py-1">{held}</span>}
        </DragOverlay>
      </DndContext>
      {hand.scaled && (
        <ScaleDialog
          points={hand.scaled}
          plan={site.plan}
          onClose={() => hand.scaledTo(null)}
          onScale={hand.scaledTo}
        />
      )}
    </>
  );
}
