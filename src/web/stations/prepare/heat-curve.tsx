import { type HeatRun, heatAfter } from '../../../core/old-phone/heat.ts';

const WIDTH = 440;
const HEIGHT = 130;
const LEFT = 30;
const BOTTOM = 18;
const MINUTES = 180;

interface HeatCurveProps {
  readonly run: HeatRun;
  readonly roomC: number;
  readonly warmC: number;
  readonly hotC: number;
}

/** How warm a handset gets in three hours: the curve, the room it begins at, and the lines from which it does less, and stops. */
export function HeatCurve({ run, roomC, warmC, hotC }: HeatCurveProps) {
  const low = Math.floor(Math.min(roomC, warmC - 10) / 5) * 5;
  const high = Math.ceil((Math.max(run.steadyC, hotC) + 3) / 5) * 5;
  const x = (minutes: number): number => LEFT + (minutes / MINUTES) * (WIDTH - LEFT - 6);
  const y = (celsius: number): number => 6 + ((high - celsius) / (high - low)) * (HEIGHT - BOTTOM - 6);
  const points = Array.from({ length: 61 }, (_, at) => {
    const minutes = (at / 60) * MINUTES;
    return `${x(minutes).toFixed(1)},${y(heatAfter(run, roomC, minutes)).toFixed(1)}`;
  });
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="mb-1 block w-full max-w-[520px]"
      role="img"
      aria-label={`From ${roomC} °C to ${Math.round(run.steadyC)} °C in three hours`}
    >
      <rect x={LEFT} y={y(high)} width={WIDTH - LEFT - 6} height={y(hotC) - y(high)} fill="var(--brick-wash)" />
      <rect x={LEFT} y={y(hotC)} width={WIDTH - LEFT - 6} height={y(warmC) - y(hotC)} fill="var(--brass-wash)" />
      {[
        { at: hotC, words: 'switch it off', ink: 'var(--brick)' },
        { at: warmC, words: 'lower frame rate', ink: 'var(--brass)' },
      ].map(({ at, words, ink }) => (
        <g key={words}>
          <path d={`M${LEFT} ${y(at)} H${WIDTH - 6}`} stroke={ink} strokeDasharray="4 3" />
          <text x={LEFT + 4} y={y(at) - 3} fontSize="10" fill={ink}>
            {words}
          </text>
          <text x={LEFT - 4} y={y(at) + 3.5} fontSize="10" textAnchor="end" fill="var(--soft)">
            {at}°
          </text>
        </g>
      ))}
      <path d={`M${LEFT} ${y(roomC)} H${WIDTH - 6}`} stroke="var(--hair)" />
      <text x={LEFT - 4} y={y(roomC) + 3.5} fontSize="10" textAnchor="end" fill="var(--soft)">
        {roomC}°
      </text>
      <polyline points={points.join(' ')} fill="none" stroke="var(--ink)" strokeWidth="2" />
      {[0, 60, 120, 180].map((minutes) => (
        <text
          key={minutes}
          x={x(minutes)}
          y={HEIGHT - 4}
          fontSize="10"
          textAnchor={minutes === 0 ? 'start' : minutes === MINUTES ? 'end' : 'middle'}
          fill="var(--soft)"
        >
          {minutes === 0 ? 'start' : `${minutes / 60} h`}
        </text>
      ))}
    </svg>
  );
}
