import { sayFrom, sayUpTo } from '../../../core/base/say.ts';
import { LEVEL_FILL } from '../../../core/handover/level-fill.ts';
import type { LevelStretch } from '../../../core/optics/footprint.ts';
import { LEVEL_TEXT } from './level-text.ts';

/** Of the drawing, px: on a desk and on a phone. */
const DESK = { WIDTH: 800, TALLEST: 292, LEFT: 66 } as const;
const PHONE = { WIDTH: 380, TALLEST: 252, LEFT: 50 } as const;
/** Above the camera, for what is written there. */
const HEAD = 44;

/** A drawing of the place from the side: its size in px, and where metres lie on it. */
export interface Drawing {
  readonly isNarrow: boolean;
  readonly width: number;
  readonly left: number;
  readonly groundY: number;
  /** Pixels a metre. */
  readonly scale: number;
  /** Farthest that is drawn. */
  readonly endM: number;
  readonly x: (metres: number) => number;
  readonly y: (metres: number) => number;
}

export function drawingOf(isNarrow: boolean, distanceM: number, heightM: number): Drawing {
  const { WIDTH, TALLEST, LEFT } = isNarrow ? PHONE : DESK;
  const farM = Math.max(distanceM * 1.45, 8);
  const scale = Math.min((WIDTH - LEFT - 12) / farM, (TALLEST - 34) / Math.max(heightM + 0.4, 2.4));
  // A short drawing where little is to be seen above the camera: on a phone the width decides.
  const groundY = isNarrow ? Math.min(TALLEST, Math.max(heightM, 2.2) * scale + HEAD) : TALLEST;
  return {
    isNarrow,
    width: WIDTH,
    left: LEFT,
    groundY,
    scale,
    endM: (WIDTH - 12 - LEFT) / scale,
    x: (metres) => LEFT + metres * scale,
    y: (metres) => groundY - metres * scale,
  };
}

/** How far the ground below is out of sight. */
export function Unseen({ drawing: { x, endM, groundY }, toM }: { drawing: Drawing; toM: number }) {
  return (
    <g>
      <line
        x1={x(0)}
        x2={x(Math.min(toM, endM))}
        y1={groundY - 8}
        y2={groundY - 8}
        stroke="var(--brick)"
        strokeWidth="1.6"
        strokeDasharray="4 3"
      />
      <text x={x(0) + 6} y={groundY - 14} className="fill-brick text-[13px]">
        blind up to {sayFrom(toM)}
      </text>
    </g>
  );
}

interface LightEndProps {
  readonly drawing: Drawing;
  readonly atM: number;
  readonly isOutdoors: boolean;
}

/** Where its light ends: outdoors over dark ground. */
export function LightEnd({ drawing: { x, y, width, groundY, isNarrow }, atM, isOutdoors }: LightEndProps) {
  return (
    <g>
      <line
        x1={x(atM)}
        x2={x(atM)}
        y1={groundY}
        y2={Math.max(30, y(2.9))}
        stroke="var(--brass)"
        strokeWidth="1.6"
        strokeDasharray="2 4"
      />
      <text
        x={x(atM) + (x(atM) > width * 0.6 ? -6 : 6)}
        y={isNarrow ? Math.max(16, y(2.9) - 6) : Math.max(38, y(2.9) + 6)}
        textAnchor={x(atM) > width * 0.6 ? 'end' : 'start'}
        className="fill-brass text-[13px]"
      >
        {isNarrow ? 'illuminator to' : `illuminator range${isOutdoors ? ', dark ground' : ''}:`} {Math.floor(atM)} m
      </text>
    </g>
  );
}

/** How far each level goes, along the ground. */
export function LevelBar({
  drawing: { x, scale, groundY },
  stretches,
  endM,
}: {
  drawing: Drawing;
  stretches: readonly LevelStretch[];
  /** What reaches to here goes on beyond the drawing. */
  endM: number;
}) {
  return (
    <>
      {stretches.map(({ level, fromM, toM }) => (
        <g key={level}>
          <rect
            x={x(fromM)}
            y={groundY + 2}
            width={(toM - fromM) * scale}
            height="20"
            fill="var(--verdigris)"
            opacity={LEVEL_FILL[level]}
          />
          {(toM - fromM) * scale > 62 && (
            <text
              x={x((fromM + toM) / 2)}
              y={groundY + 16}
              textAnchor="middle"
              className={`text-[12.5px] ${LEVEL_TEXT[level]}`}
            >
              {level}
            </text>
          )}
          {toM < endM && (toM - fromM) * scale > 34 && (
            <text x={x(toM)} y={groundY + 40} textAnchor="middle" className="fill-ink font-mono text-[13px]">
              {sayUpTo(toM)}
            </text>
          )}
        </g>
      ))}
    </>
  );
}

export function Dimension({ x, from, to, text }: { x: number; from: number; to: number; text: string }) {
  return (
    <g className="stroke-soft">
      <line x1={x} x2={x} y1={from} y2={to} />
      <line x1={x - 5} x2={x + 5} y1={from} y2={from} />
      <line x1={x - 5} x2={x + 5} y1={to} y2={to} />
      <text
        x={x - 8}
        y={(from + to) / 2}
        textAnchor="middle"
        transform={`rotate(-90 ${x - 8} ${(from + to) / 2})`}
        className="fill-ink stroke-none font-mono text-[13px]"
      >
        {text}
      </text>
    </g>
  );
}

/** A grown person, 1.75 m. */
export function Figure({ x, y, scale }: { x: number; y: number; scale: number }) {
  return (
    <g transform={`translate(${x} ${y}) scale(${scale / 100})`} fill="var(--ink)">
      <circle cx="0" cy="-162" r="12.5" />
      <path d="M-15,-145 h30 l8,58 h-10 l-3,-30 v117 h-8 v-80 h-4 v80 h-8 v-117 l-3,30 h-10 z" />
    </g>
  );
}
