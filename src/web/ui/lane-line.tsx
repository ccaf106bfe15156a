import { VERDICT_WORDS } from '../../core/base/verdict.ts';
import type { Lane, LaneStation } from '../../core/lanes/lane-types.ts';
import { DropShape } from './drop.tsx';

const RING = 15;
const HEIGHT = 36;

interface LaneLineProps {
  readonly lane: Lane;
  /** Distance from station to station, px; with many of them less, so that all stay in view. */
  readonly step: number;
}

const statusOf = (lane: Lane, { station, name, verdict }: LaneStation): string =>
  `${name}: ${VERDICT_WORDS[verdict]}${lane.standsAt === station ? ', stands here' : ''}`;

/** A camera's way through the stations: drops on a line, a ring where it stands, the way behind it drawn through. */
export function LaneLine({ lane, step }: LaneLineProps) {
  const count = lane.stations.length;
  const width = step * count;
  const xOf = (index: number): number => step * (index + 0.5);
  const stand = lane.stations.findIndex(({ station }) => station === lane.standsAt);
  const reached = stand < 0 ? count - 1 : stand;
  const words = lane.stations.map((one) => statusOf(lane, one)).join('; ');
  return (
    <svg
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      role="img"
      aria-label={words}
      className="block"
    >
      <title>{words}</title>
      <line x1={xOf(0)} x2={xOf(count - 1)} y1={HEIGHT / 2} y2={HEIGHT / 2} stroke="var(--hair)" strokeWidth="1.5" />
      {reached > 0 && (
        <line
          x1={xOf(0)}
          x2={xOf(reached)}
          y1={HEIGHT / 2}
          y2={HEIGHT / 2}
          stroke="var(--verdigris)"
          strokeWidth="3"
          opacity="0.6"
        />
      )}
      {lane.stations.map(({ station, verdict }, index) => (
        <g key={station} transform={`translate(${xOf(index)} ${HEIGHT / 2})`}>
          <circle
            r={RING}
            fill="var(--sheet)"
            stroke={lane.standsAt === station ? 'var(--ink)' : 'none'}
            strokeWidth="1.4"
          />
          <g transform="scale(1.05)">
            <DropShape verdict={verdict} />
          </g>
        </g>
      ))}
    </svg>
  );
}
