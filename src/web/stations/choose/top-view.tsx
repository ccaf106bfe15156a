import type { Mounting } from '../../../core/document/chapters/cameras/mounting.ts';
import type { Need } from '../../../core/document/chapters/cameras/need.ts';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { LEVEL_FILL } from '../../../core/handover/level-fill.ts';
import { panCoverage } from '../../../core/optics/picture-geometry.ts';
import { viewWedge } from '../../../core/optics/view-wedge.ts';
import { aimOf, type LensService } from '../../../core/site/needs.ts';

const WIDTH = 800;
const HEIGHT = 370;
const MIDDLE_Y = HEIGHT / 2;
const LEFT = 90;
const DEG = Math.PI / 180;
/** The camera in its own drawing: at its origin, looking to the right. */
const HERE = { position: { xM: 0, yM: 0 }, headingDeg: 0 } as const;

interface TopViewProps {
  readonly model: Model;
  readonly need: Need;
  readonly mounting: Mounting;
  /** One for each lens. */
  readonly services: readonly LensService[];
  readonly targetHeightM: number;
}

/** The same from above: how wide each lens sees, where each level ends, what turning reaches and what nothing sees. */
export function TopView({ model, need, mounting, services, targetHeightM }: TopViewProps) {
  const farM = Math.max(need.distanceM * 1.3, 6);
  const scale = Math.min((WIDTH - LEFT - 20) / farM, (HEIGHT - 40) / Math.max(need.widthM * 1.3, 4));
  const endM = (WIDTH - LEFT - 16) / scale;
  const x = (metres: number): number => LEFT + metres * scale;
  const y = (metres: number): number => MIDDLE_Y + metres * scale;
  const widest = Math.max(...services.map(({ view }) => view.hfovDeg));
  const pan = model.panRangeDeg ? panCoverage(model.panRangeDeg, widest) : null;
  const spread = services.map(({ view }) => [
    view.lens.axisDeg - view.hfovDeg / 2,
    view.lens.axisDeg + view.hfovDeg / 2,
  ]);
  const covered = `${Math.round(Math.max(...spread.map(([, to = 0]) => to)) - Math.min(...spread.map(([from = 0]) => from)))}°`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full">
      <title>{`From above: ${covered} wide${pan ? `, pan reaches ${Math.round(pan.coveredDeg)}°` : ''}`}</title>
      <clipPath id="top-view-frame">
        <rect x="0" y="0" width={WIDTH} height={HEIGHT} />
      </clipPath>
      <g clipPath="url(#top-view-frame)">
        {pan && (
          <path
            d={sector(
              x(0),
              MIDDLE_Y,
              Math.min(endM, need.distanceM * 1.1) * scale,
              -pan.coveredDeg / 2,
              pan.coveredDeg / 2,
            )}
            fill="none"
            stroke="var(--soft)"
            strokeDasharray="5 4"
          />
        )}
        {services.map(({ view }) => (
          <g key={view.lens.label}>
            {viewWedge({ ...HERE, view, aim: aimOf(mounting), heightM: targetHeightM, maxM: endM * 1.6 }, []).map(
              ({ level, points }) => (
                <polygon
                  key={`${level}-${points[0]}-${points[1]}`}
                  points={points.map((metres, at) => (at % 2 === 0 ? x(metres) : y(metres)).toFixed(1)).join(' ')}
                  fill="var(--verdigris)"
                  opacity={LEVEL_FILL[level] * 0.75}
                />
              ),
            )}
          </g>
        ))}
      </g>
      <rect x={x(0) - 12} y="14" width="8" height={HEIGHT - 28} fill="var(--hair)" />
      <rect x={x(0) - 13} y={MIDDLE_Y - 8} width="27" height="16" rx="2" fill="var(--ink)" />
      <g className="stroke-ink">
        <line
          x1={x(need.distanceM)}
          x2={x(need.distanceM)}
          y1={y(-need.widthM / 2)}
          y2={y(need.widthM / 2)}
          strokeWidth="1.6"
        />
        <line x1={x(need.distanceM) - 6} x2={x(need.distanceM) + 6} y1={y(-need.widthM / 2)} y2={y(-need.widthM / 2)} />
        <line x1={x(need.distanceM) - 6} x2={x(need.distanceM) + 6} y1={y(need.widthM / 2)} y2={y(need.widthM / 2)} />
      </g>
      <circle cx={x(need.distanceM)} cy={MIDDLE_Y} r="5" fill="var(--ink)" />
      <text x={x(need.distanceM) + 10} y={MIDDLE_Y + 4} className="fill-ink text-[13px]">
        {need.widthM} m wanted
      </text>
      <text x={x(0)} y={HEIGHT - 12} className="fill-soft text-[13px]">
        {covered} wide
        {pan &&
          `; with pan ${Math.round(pan.coveredDeg)}° are covered${pan.deadDeg > 0.5 ? `, ${Math.round(pan.deadDeg)}° never` : ''}`}
        {model.tiltRangeDeg ? `; tilts through ${model.tiltRangeDeg}°` : ''}
      </text>
    </svg>
  );
}

const on = (cx: number, cy: number, radius: number, deg: number): string =>
  `${(cx + radius * Math.cos(deg * DEG)).toFixed(1)},${(cy + radius * Math.sin(deg * DEG)).toFixed(1)}`;

function sector(cx: number, cy: number, radius: number, fromDeg: number, toDeg: number): string {
  const large = toDeg - fromDeg > 180 ? 1 : 0;
  const end = toDeg - fromDeg >= 360 ? fromDeg + 359.9 : toDeg;
  return `M${cx},${cy} L${on(cx, cy, radius, fromDeg)} A${radius},${radius} 0 ${large} 1 ${on(cx, cy, radius, end)} Z`;
}
