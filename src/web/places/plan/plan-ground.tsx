import { memo, useEffect, useState } from 'react';
import { Group, Image as KonvaImage, Line, Text } from 'react-konva';
import { type Point, type Wall, wallLengthM } from '../../../core/base/plan-geometry.ts';
import type { PlanPicture } from '../../../core/document/chapters/plan/drawn-plan.ts';
import { CHART_FONT } from '../../ui/chart-colours.ts';
import type { Colours } from './plan-items.tsx';

/** The picture that the plan is drawn on. */
export function Ground({ picture, scale }: { picture: PlanPicture; scale: number }) {
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  useEffect(() => {
    const loaded = new Image();
    loaded.onload = () => setImage(loaded);
    loaded.src = picture.dataUrl;
  }, [picture.dataUrl]);
  if (!image) return null;
  const { widthPx, heightPx, metresPerPx } = picture;
  return (
    <KonvaImage
      image={image}
      width={widthPx * metresPerPx * scale}
      height={heightPx * metresPerPx * scale}
      opacity={0.7}
    />
  );
}

interface GridProps {
  readonly widthM: number;
  readonly heightM: number;
  readonly scale: number;
  readonly colours: Colours;
}

/** A line a metre, a stronger one every five. */
export const Grid = memo(function Grid({ widthM, heightM, scale, colours }: GridProps) {
  const step = scale >= 9 ? 1 : 5;
  const lines = (length: number): number[] =>
    Array.from({ length: Math.floor(length / step) + 1 }, (_, at) => at * step);
  const strong = (metres: number): number => (metres % 5 === 0 ? 1 : 0.45);
  return (
    <>
      {lines(widthM).map((xM) => (
        <Line
          key={`x${xM}`}
          points={[xM * scale, 0, xM * scale, heightM * scale]}
          stroke={colours.hair}
          strokeWidth={1}
          opacity={strong(xM)}
        />
      ))}
      {lines(heightM).map((yM) => (
        <Line
          key={`y${yM}`}
          points={[0, yM * scale, widthM * scale, yM * scale]}
          stroke={colours.hair}
          strokeWidth={1}
          opacity={strong(yM)}
        />
      ))}
    </>
  );
});

interface WallLengthsProps {
  readonly walls: readonly Wall[];
  /** Corners of the wall that is being drawn. */
  readonly drawn: readonly Point[];
  readonly scale: number;
  readonly colours: Colours;
}

/** How long walls are, at their middles: beside a tape one sees at once what was drawn wrong. */
export function WallLengths({ walls, drawn, scale, colours }: WallLengthsProps) {
  const stretches = [
    ...walls.map(({ id, from, to }) => ({ id, from, to })),
    ...drawn.slice(1).map((to, at) => ({ id: `drawn-${at}`, from: drawn[at] ?? to, to })),
  ];
  return (
    <>
      {stretches.map(({ id, from, to }) => (
        <Text
          key={id}
          x={((from.xM + to.xM) / 2) * scale + 4}
          y={((from.yM + to.yM) / 2) * scale - 14}
          text={`${wallLengthM({ from, to }).toFixed(1)} m`}
          fontSize={12}
          fontFamily={CHART_FONT}
          fill={colours.verdigris}
          stroke={colours.sheet}
          strokeWidth={4}
          fillAfterStrokeEnabled
        />
      ))}
    </>
  );
}

interface NorthArrowProps {
  readonly northDeg: number | null;
  readonly xPx: number;
  readonly colours: Colours;
}

/** Where north lies; nothing where nobody said. */
export function NorthArrow({ northDeg, xPx, colours }: NorthArrowProps) {
  if (northDeg === null) return null;
  return (
    <Group x={xPx} y={34} rotation={northDeg}>
      <Line points={[0, -18, 6, 10, 0, 5, -6, 10]} closed fill={colours.ink} />
      <Text
        x={-8}
        y={-33}
        width={16}
        align="center"
        text="N"
        fontSize={12}
        fontFamily={CHART_FONT}
        fill={colours.ink}
      />
    </Group>
  );
}

/** Five metres, to see how large all is. */
export function MetreRule({ scale, heightM, colours }: { scale: number; heightM: number; colours: Colours }) {
  const y = heightM * scale - 14;
  return (
    <>
      <Line
        points={[14, y - 5, 14, y, 14 + 5 * scale, y, 14 + 5 * scale, y - 5]}
        stroke={colours.ink}
        strokeWidth={1.4}
      />
      <Text x={18} y={y - 16} text="5 m" fontSize={12} fontFamily={CHART_FONT} fill={colours.ink} />
    </>
  );
}
