import { memo } from 'react';
import { Line, Text } from 'react-konva';
import type { Wall } from '../../../core/base/plan-geometry.ts';
import type { Link } from '../../../core/document/chapters/links/link.ts';
import { linkSubject } from '../../../core/document/subject.ts';
import { WALL_WIDTH_M } from '../../../core/handover/plan-svg.ts';
import { lengthOf, sayLength } from '../../../core/site/link-length.ts';
import { CHART_FONT } from '../../ui/chart-colours.ts';
import type { Colours } from './plan-items.tsx';

// Hundreds of them stand still while one thing is taken hold of: each is drawn anew only with what it shows.

interface LineProps {
  readonly scale: number;
  readonly colours: Colours;
  readonly isSelected: boolean;
  readonly onSelect: (subject: string) => void;
}

interface WallProps extends LineProps {
  readonly wall: Wall;
}

const PlanWall = memo(function PlanWall({ wall, scale, colours, isSelected, onSelect }: WallProps) {
  const { id, from, to, material } = wall;
  return (
    <Line
      points={[from.xM, from.yM, to.xM, to.yM].map((metres) => metres * scale)}
      stroke={isSelected ? colours.verdigris : colours.ink}
      strokeWidth={Math.max(1.5, WALL_WIDTH_M[material] * scale)}
      lineCap={material === 'fence' ? 'butt' : 'square'}
      {...(material === 'fence' ? { dash: [5, 5] } : material === 'door' ? { dash: [2, 3] } : {})}
      opacity={material === 'glass' ? 0.45 : material === 'plaster' ? 0.6 : 0.85}
      hitStrokeWidth={14}
      onMouseDown={() => onSelect(`wall:${id}`)}
      onTap={() => onSelect(`wall:${id}`)}
    />
  );
});

interface RouteProps extends LineProps {
  readonly link: Link;
}

/** A cable as it was drawn, with its length. */
const PlanRoute = memo(function PlanRoute(props: RouteProps) {
  const { link, scale, colours, isSelected, onSelect } = props;
  if (!link.route || link.route.length < 2) return null;
  const subject = linkSubject(link.id);
  const middle = link.route[Math.floor((link.route.length - 1) / 2)];
  const next = link.route[Math.floor((link.route.length - 1) / 2) + 1];
  return (
    <>
      <Line
        points={link.route.flatMap(({ xM, yM }) => [xM * scale, yM * scale])}
        stroke={colours.blue}
        strokeWidth={isSelected ? 4 : 2}
        hitStrokeWidth={14}
        onMouseDown={() => onSelect(subject)}
        onTap={() => onSelect(subject)}
      />
      {middle && next && (
        <Text
          x={((middle.xM + next.xM) / 2) * scale + 4}
          y={((middle.yM + next.yM) / 2) * scale + 4}
          text={sayLength(lengthOf(link, () => null, {}))}
          fontSize={12}
          fontFamily={CHART_FONT}
          fill={colours.blue}
          stroke={colours.sheet}
          strokeWidth={4}
          fillAfterStrokeEnabled
          listening={false}
        />
      )}
    </>
  );
});

interface LinesProps extends Omit<LineProps, 'isSelected'> {
  readonly walls: readonly Wall[];
  readonly links: readonly Link[];
  /** The wall or the link that is selected. */
  readonly selected: string | null;
}

/** All walls and routes; kept as they are while things move among them. */
export const PlanLines = memo(function PlanLines({ walls, links, selected, ...line }: LinesProps) {
  return (
    <>
      {walls.map((wall) => (
        <PlanWall key={wall.id} wall={wall} isSelected={selected === `wall:${wall.id}`} {...line} />
      ))}
      {links.map((link) => (
        <PlanRoute key={link.id} link={link} isSelected={selected === linkSubject(link.id)} {...line} />
      ))}
    </>
  );
});
