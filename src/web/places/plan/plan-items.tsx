import { Container } from 'konva/lib/Container';
import type { KonvaEventObject, Node } from 'konva/lib/Node';
import { memo } from 'react';
import { Circle, Group, Line, Path, Rect, Text } from 'react-konva';
import type { Point } from '../../../core/base/plan-geometry.ts';
import type { Verdict } from '../../../core/base/verdict.ts';
import type { LabelPlace } from '../../../core/handover/label-places.ts';
import { LEVEL_FILL } from '../../../core/handover/level-fill.ts';
import type { WedgeShape } from '../../../core/optics/view-wedge.ts';
import { CHART_FONT } from '../../ui/chart-colours.ts';
import { DROP_PATH } from '../../ui/drop.tsx';

export interface Colours {
  readonly ink: string;
  readonly soft: string;
  readonly hair: string;
  readonly sheet: string;
  readonly verdigris: string;
  readonly brass: string;
  readonly brick: string;
  readonly blue: string;
}

/** Groups of the stage that a drag moves things between. */
export const SHEETS = { views: 'views', items: 'items', lifted: 'lifted' } as const;

/** Groups by their ids. The stage's own search goes through every letter on it, and that at each step of a drag. */
function sheetOf(node: Node, id: string): Container | undefined {
  for (const layer of node.getStage()?.getLayers() ?? [])
    for (const child of layer.children) if (child.id() === id && child instanceof Container) return child;
  return undefined;
}
function wedgeOf(node: Node, subject: string): Node | undefined {
  const id = wedgeIdOf(subject);
  for (const sheet of [SHEETS.lifted, SHEETS.views]) {
    const found = sheetOf(node, sheet)?.children.find((child) => child.id() === id);
    if (found) return found;
  }
  return undefined;
}

/** What is dragged goes to a sheet of its own with its view: two hundred others then need not be drawn at each step. */
function lift(node: Node, subject: string): void {
  const sheet = sheetOf(node, SHEETS.lifted);
  if (!sheet) return;
  wedgeOf(node, subject)?.moveTo(sheet);
  node.moveTo(sheet);
}
/** A moment after it was let go: then all others are drawn, and the edit itself has its own share of the frame. */
function putDownSoon(node: Node, subject: string): void {
  setTimeout(() => {
    if (node.isDragging()) return; // taken up again
    const [views, items] = [sheetOf(node, SHEETS.views), sheetOf(node, SHEETS.items)];
    if (views) wedgeOf(node, subject)?.moveTo(views);
    if (items) node.moveTo(items);
  }, PUT_DOWN_MS);
}
const PUT_DOWN_MS = 80;

interface ItemProps {
  readonly subject: string;
  readonly kind: 'camera' | 'gear' | 'destination';
  readonly name: string;
  readonly position: Point;
  readonly headingDeg: number;
  readonly verdict: Verdict;
  readonly scale: number;
  /** Where its name has room among the others. */
  readonly label: LabelPlace;
  readonly isSelected: boolean;
  readonly canDrag: boolean;
  readonly colours: Colours;
  readonly onSelect: (subject: string) => void;
  readonly onDrag: (subject: string, position: Point) => void;
  readonly onDrop: (subject: string, position: Point) => void;
}

/** Pixels a metre from which there is room for names: of cameras, and of everything. */
const NAMES_FROM = { camera: 8, gear: 15, destination: 15 } as const;

/** Wide enough for a name on one line. */
const NAME_ROOM_PX = 400;

const NAME_AT: Readonly<Record<LabelPlace, object>> = {
  right: { x: 13, y: -7 },
  none: { x: 13, y: -7 },
  left: { x: -13 - NAME_ROOM_PX, y: -7, width: NAME_ROOM_PX, align: 'right' },
  below: { x: -NAME_ROOM_PX / 2, y: 11, width: NAME_ROOM_PX, align: 'center' },
  above: { x: -NAME_ROOM_PX / 2, y: -25, width: NAME_ROOM_PX, align: 'center' },
};

const wedgeIdOf = (subject: string): string => `sees-${subject.replace(':', '-')}`;

/** One thing on the plan. Kept as it is drawn while nothing of it changes: two hundred stand still while one is dragged. */
export const PlanItem = memo(function PlanItem(props: ItemProps) {
  const { subject, kind, name, position, scale, label, isSelected, colours } = props;
  const at = (event: KonvaEventObject<DragEvent>): Point => ({
    xM: Number((event.target.x() / scale).toFixed(2)),
    yM: Number((event.target.y() / scale).toFixed(2)),
  });
  return (
    <Group
      x={position.xM * scale}
      y={position.yM * scale}
      draggable={props.canDrag}
      onDragStart={(event) => lift(event.target, subject)}
      onMouseDown={() => props.onSelect(subject)}
      onTap={() => props.onSelect(subject)}
      onDragMove={(event) => {
        // What it sees lies on a sheet of its own beneath all names: it is taken along.
        wedgeOf(event.target, subject)?.position(event.target.position());
        props.onDrag(subject, at(event));
      }}
      onDragEnd={(event) => {
        putDownSoon(event.target, subject);
        props.onDrop(subject, at(event));
      }}
    >
      {isSelected && <Circle radius={15} stroke={colours.ink} strokeWidth={1.5} listening={false} />}
      {kind === 'camera' && <CameraMark {...props} />}
      {kind === 'gear' && (
        <Rect x={-6} y={-6} width={12} height={12} fill={colours.sheet} stroke={colours.ink} listening={false} />
      )}
      {kind === 'destination' && (
        <Circle radius={7} fill={colours.sheet} stroke={colours.ink} strokeWidth={1.5} listening={false} />
      )}
      {(isSelected || (scale >= NAMES_FROM[kind] && label !== 'none')) && (
        <Text
          {...NAME_AT[label]}
          text={name}
          fontSize={13}
          fontFamily={CHART_FONT}
          fontStyle={kind === 'camera' ? '650' : '400'}
          fill={colours.ink}
          stroke={colours.sheet}
          strokeWidth={4}
          fillAfterStrokeEnabled
          lineJoin="round"
          listening={false}
        />
      )}
      <Circle radius={16} fill="transparent" />
    </Group>
  );
});

/** A camera is its drop, pointed where it looks, filled as it fares. */
function CameraMark({ headingDeg, verdict, colours }: ItemProps) {
  const colour =
    verdict === 'ok'
      ? colours.verdigris
      : verdict === 'tight'
        ? colours.brass
        : verdict === 'will-not-work'
          ? colours.brick
          : colours.soft;
  return (
    <Group rotation={headingDeg + 90} listening={false}>
      <Path
        data={DROP_PATH}
        fill={verdict === 'ok' ? colour : colours.sheet}
        stroke={colour}
        strokeWidth={1.8}
        {...(verdict === 'unknown' ? { dash: [2, 2] } : {})}
      />
      {verdict === 'tight' && <Path data="M-6.1,1 H6.1 A6.4,6.4 0 0 1 -6.1,1 Z" fill={colour} />}
      {verdict === 'will-not-work' && <Line points={[-6.5, 6.5, 6.5, -6]} stroke={colour} strokeWidth={2} />}
    </Group>
  );
}

interface WedgeProps {
  readonly subject: string;
  readonly position: Point;
  readonly scale: number;
  readonly colours: Colours;
  readonly shapes: readonly WedgeShape[];
}

/** What one camera sees, beneath everything that is written. */
export const PlanWedge = memo(function PlanWedge({ subject, position, scale, colours, shapes }: WedgeProps) {
  return (
    <Group id={wedgeIdOf(subject)} x={position.xM * scale} y={position.yM * scale}>
      {shapes.map(({ level, points }) => (
        <Line
          key={`${level}-${points[0]}-${points[1]}`}
          points={points.map((metres) => metres * scale)}
          closed
          fill={colours.verdigris}
          opacity={LEVEL_FILL[level] * 0.6}
          perfectDrawEnabled={false}
        />
      ))}
    </Group>
  );
});
