import { useDndMonitor, useDroppable } from '@dnd-kit/core';
import { getEventCoordinates } from '@dnd-kit/utilities';
import type Konva from 'konva';
import { type KeyboardEvent, type Ref, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { Group, Layer, Line, Rect, Stage } from 'react-konva';
import type { Point } from '../../../core/base/plan-geometry.ts';
import type { Verdict } from '../../../core/base/verdict.ts';
import type { Site } from '../../../core/document/site.ts';
import { positionOf, thingsOf } from '../../../core/document/subjects.ts';
import { placeLabels } from '../../../core/handover/label-places.ts';
import { mountingOf } from '../../../core/site/needs.ts';
import { Grid, Ground, MetreRule, NorthArrow, WallLengths } from './plan-ground.tsx';
import { type Colours, PlanItem, SHEETS } from './plan-items.tsx';
import { PlanLines } from './plan-lines.tsx';
import { ARROWS, type Drawing, snapped, type Tool } from './plan-tools.ts';
import { usePinch } from './use-pinch.ts';
import { ViewsSheet, type WedgeHandle } from './views-sheet.tsx';

export interface PlanCanvasProps {
  readonly stageRef: Ref<Konva.Stage>;
  readonly site: Site;
  readonly wedgeHandle: RefObject<WedgeHandle | null>;
  readonly verdictOf: (cameraId: string) => Verdict;
  readonly tool: Tool;
  /** What the next press puts into its place. */
  readonly placing: string | null;
  readonly drawing: Drawing;
  readonly selected: string | null;
  readonly zoom: number;
  readonly onZoom: (zoom: number) => void;
  readonly colours: Colours;
  readonly onSelect: (subject: string | null) => void;
  readonly onDrag: (subject: string, position: Point) => void;
  readonly onDrop: (subject: string, position: Point) => void;
  readonly onPoint: (point: Point) => void;
  readonly onCursor: (point: Point | null) => void;
  readonly onEnd: () => void;
  readonly onCancel: () => void;
  readonly onRemove: () => void;
  readonly onBrought: (subject: string, point: Point) => void;
}

const PLAN_SHEET = 'plan-sheet';

/** The sheet itself. Drawn by pointer or by keys: arrows move the point, the space bar sets it, Enter ends. */
export function PlanCanvas(props: PlanCanvasProps) {
  const { site, tool, drawing, selected, zoom, colours } = props;
  const frame = useRef<HTMLDivElement>(null);
  const { setNodeRef } = useDroppable({ id: PLAN_SHEET });
  const [width, setWidth] = useState(800);
  useEffect(() => {
    if (!frame.current) return;
    const watch = new ResizeObserver(([entry]) => entry && setWidth(Math.max(200, entry.contentRect.width)));
    watch.observe(frame.current);
    return () => watch.disconnect();
  }, []);
  const { plan } = site;
  const scale = (width / plan.widthM) * zoom;
  const { placing } = props;
  const isDrawing = tool !== 'move' || placing !== null;
  useEffect(() => {
    if (placing !== null) frame.current?.focus();
  }, [placing]);
  usePinch(frame, zoom, props.onZoom);
  const pointOf = (stage: Konva.Stage | null, isFree: boolean): Point | null => {
    const at = stage?.getPointerPosition();
    return at ? snapped({ xM: at.x / scale, yM: at.y / scale }, isFree) : null;
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const arrow = ARROWS[event.key];
    const isFree = event.altKey;
    if (arrow) {
      event.preventDefault();
      const step = isFree ? 0.1 : 0.5;
      const from = isDrawing
        ? (drawing.cursor ?? drawing.points.at(-1) ?? middleOf(plan))
        : selected && positionOf(site, selected);
      if (!from) return;
      const to = { xM: from.xM + arrow[0] * step, yM: from.yM + arrow[1] * step };
      if (isDrawing) props.onCursor(snapped(to, isFree));
      else if (selected) props.onDrop(selected, { xM: Number(to.xM.toFixed(2)), yM: Number(to.yM.toFixed(2)) });
    } else if (event.key === ' ' && isDrawing && drawing.cursor) {
      event.preventDefault();
      props.onPoint(drawing.cursor);
    } else if (event.key === 'Enter' && placing !== null) {
      event.preventDefault();
      props.onPoint(drawing.cursor ?? middleOf(plan));
    } else if (event.key === 'Enter') props.onEnd();
    else if (event.key === 'Escape') props.onCancel();
    else if (event.key === 'Delete' || event.key === 'Backspace') props.onRemove();
  };
  useDndMonitor({
    onDragEnd: ({ active, over, activatorEvent, delta }) => {
      const box = frame.current?.getBoundingClientRect();
      const from = getEventCoordinates(activatorEvent);
      if (!box || !from || !frame.current || over?.id !== PLAN_SHEET) return;
      const x = from.x + delta.x - box.left + frame.current.scrollLeft;
      const y = from.y + delta.y - box.top + frame.current.scrollTop;
      props.onBrought(String(active.id), snapped({ xM: x / scale, yM: y / scale }, true));
    },
  });
  const things = useMemo(
    () => thingsOf({ gear: site.gear, destinations: site.destinations, cameras: site.cameras }),
    [site.gear, site.destinations, site.cameras],
  );
  const labels = useMemo(
    () =>
      placeLabels(
        // Cameras choose first.
        things
          .toReversed()
          .flatMap(({ subject, item: { name, position } }) =>
            position ? [{ id: subject, name, x: position.xM * scale, y: position.yM * scale }] : [],
          ),
        plan.widthM * scale,
      ),
    [things, scale, plan.widthM],
  );
  // Two quick presses end only in one spot: who draws fast sets two corners.
  const lastPress = useRef({ x: 0, y: 0, at: Number.NEGATIVE_INFINITY });
  const isSecondPress = ({ clientX: x, clientY: y, timeStamp: at }: MouseEvent): boolean => {
    const last = lastPress.current;
    lastPress.current = { x, y, at };
    return at - last.at < 400 && Math.hypot(x - last.x, y - last.y) < 6;
  };
  const preview = drawing.cursor ? [...drawing.points, drawing.cursor] : drawing.points;
  return (
    <div
      ref={(node) => {
        frame.current = node;
        setNodeRef(node);
      }}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a drawing is worked on by keys while it is in focus
      tabIndex={0}
      role="application"
      aria-label="Plan. Arrow keys move what is selected, or the point to be set; the space bar sets it, Enter ends, Escape cancels."
      className="max-h-[72dvh] overflow-auto border border-hair bg-sheet max-md:-mx-3.5 max-md:border-x-0"
      onKeyDown={onKeyDown}
    >
      <Stage
        ref={props.stageRef}
        width={plan.widthM * scale}
        height={plan.heightM * scale}
        style={{ cursor: isDrawing ? 'crosshair' : 'default', touchAction: 'none' }}
        onMouseDown={(event) => {
          if (isDrawing) {
            const point = pointOf(event.target.getStage(), event.evt.altKey);
            if (isSecondPress(event.evt)) props.onEnd();
            else if (point) props.onPoint(point);
          } else if (event.target === event.target.getStage()) props.onSelect(null);
          frame.current?.focus({ preventScroll: true });
        }}
        onTap={(event) => {
          const point = isDrawing ? pointOf(event.target.getStage(), false) : null;
          if (point) props.onPoint(point);
        }}
        onMouseMove={(event) => {
          if (isDrawing) props.onCursor(pointOf(event.target.getStage(), event.evt.altKey));
        }}
      >
        <Layer listening={false}>
          <Rect width={plan.widthM * scale} height={plan.heightM * scale} fill={colours.sheet} />
          {plan.picture ? (
            <Ground picture={plan.picture} scale={scale} />
          ) : (
            <Grid widthM={plan.widthM} heightM={plan.heightM} scale={scale} colours={colours} />
          )}
        </Layer>
        <Layer listening={!isDrawing}>
          <ViewsSheet handle={props.wedgeHandle} site={site} scale={scale} colours={colours} />
          <PlanLines
            walls={plan.walls}
            links={site.links}
            scale={scale}
            colours={colours}
            selected={selected && /^(wall|link):/.test(selected) ? selected : null}
            onSelect={props.onSelect}
          />
          <Group id={SHEETS.items}>
            {things.map(({ item, kind, subject }) =>
              item.position ? (
                <PlanItem
                  key={subject}
                  subject={subject}
                  kind={kind}
                  name={item.name}
                  position={item.position}
                  headingDeg={kind === 'camera' ? mountingOf(item, site.assumptions).headingDeg : 0}
                  verdict={kind === 'camera' ? props.verdictOf(item.id) : 'unknown'}
                  scale={scale}
                  label={labels.get(subject) ?? 'none'}
                  isSelected={selected === subject}
                  canDrag={!isDrawing}
                  colours={colours}
                  onSelect={props.onSelect}
                  onDrag={props.onDrag}
                  onDrop={props.onDrop}
                />
              ) : null,
            )}
          </Group>
        </Layer>
        <Layer>
          <Group id={SHEETS.lifted} />
          <Group listening={false}>
            {preview.length > 1 && (
              <Line
                points={preview.flatMap(({ xM, yM }) => [xM * scale, yM * scale])}
                stroke={tool === 'route' ? colours.blue : colours.verdigris}
                strokeWidth={3}
                dash={[7, 4]}
              />
            )}
            {preview.map(({ xM, yM }) => (
              <Rect
                key={`${xM},${yM}`}
                x={xM * scale - 3}
                y={yM * scale - 3}
                width={6}
                height={6}
                fill={colours.verdigris}
              />
            ))}
            {(tool === 'wall' || selected?.startsWith('wall:')) && (
              <WallLengths
                walls={tool === 'wall' ? plan.walls : plan.walls.filter(({ id }) => `wall:${id}` === selected)}
                drawn={tool === 'wall' ? preview : []}
                scale={scale}
                colours={colours}
              />
            )}
            <NorthArrow northDeg={plan.northDeg} xPx={plan.widthM * scale - 22} colours={colours} />
            <MetreRule scale={scale} heightM={plan.heightM} colours={colours} />
          </Group>
        </Layer>
      </Stage>
    </div>
  );
}

const middleOf = ({ widthM, heightM }: { widthM: number; heightM: number }): Point =>
  snapped({ xM: widthM / 2, yM: heightM / 2 }, false);
