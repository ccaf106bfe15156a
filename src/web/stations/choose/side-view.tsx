import { type PointerEvent, useRef } from 'react';
import type { Mounting } from '../../../core/document/chapters/cameras/mounting.ts';
import type { Need } from '../../../core/document/chapters/cameras/need.ts';
import { pxPerMForText, pxPerMOf } from '../../../core/optics/detail-levels.ts';
import { stretchesAlong } from '../../../core/optics/footprint.ts';
import { aimOf, type LensService } from '../../../core/site/needs.ts';
import { useNarrow } from '../../ui/use-media.ts';
import { Knob } from './side-knob.tsx';
import { Dimension, drawingOf, Figure, LevelBar, LightEnd, Unseen } from './side-parts.tsx';

/** Below the ground: the levels and where they end. */
const FOOT = 48;
const DEG = Math.PI / 180;
const MAX_HEIGHT_M = 15;

export interface SideViewProps {
  readonly need: Need;
  readonly mounting: Mounting;
  /** Of the lens that is judged. */
  readonly service: LensService;
  /** Of the lenses beside it. */
  readonly others: readonly LensService[];
  /** At which the levels below the ground are meant. */
  readonly targetHeightM: number;
  /** Over dark ground; `null` when nothing is said of a light. */
  readonly lightReachM: number | null;
  readonly onMounting: (mounting: Mounting) => void;
  readonly onDistance: (distanceM: number) => void;
  readonly onLetGo: () => void;
}

/** The place from the side, one scale both ways: what hangs where, what it sees, how far each level goes. */
export function SideView(props: SideViewProps) {
  const { need, mounting, service, others, targetHeightM, lightReachM } = props;
  const frame = useRef<SVGSVGElement>(null);
  const isNarrow = useNarrow();
  const drawing = drawingOf(isNarrow, need.distanceM, mounting.heightM);
  const { x, y, scale, endM, width: WIDTH, groundY: GROUND_Y } = drawing;

  const { view, face, seenFromM } = service;
  const camera = { x: x(0), y: y(mounting.heightM) };
  const rayTo = (downDeg: number): { x: number; y: number } => {
    const down = Math.tan(Math.min(89.9, Math.max(-89.9, downDeg)) * DEG);
    const groundM = down > 0 ? mounting.heightM / down : Number.POSITIVE_INFINITY;
    const atM = Math.min(groundM, endM);
    return { x: x(atM), y: camera.y + atM * scale * down };
  };
  const raysOf = (vfovDeg: number) =>
    [rayTo(mounting.tiltDownDeg + vfovDeg / 2), rayTo(mounting.tiltDownDeg - vfovDeg / 2)] as const;
  const [lower, upper] = raysOf(view.vfovDeg);
  // From the side two lenses of one view are one.
  const beside = others.filter((one) => Math.abs(one.view.vfovDeg - view.vfovDeg) > 0.5);
  const corner = lower.y >= GROUND_Y - 0.5 && upper.y < GROUND_Y - 0.5 ? `${x(endM)},${GROUND_Y}` : '';
  const over = { view, aim: aimOf(mounting), heightM: targetHeightM, maxM: endM };
  const stretches = stretchesAlong(over, view.lens.axisDeg);
  const handleM = Math.min(2.2, need.distanceM * 0.3);
  const handle = {
    x: camera.x + Math.cos(mounting.tiltDownDeg * DEG) * handleM * scale,
    y: camera.y + Math.sin(mounting.tiltDownDeg * DEG) * handleM * scale,
  };
  const density = `${Math.round(face.pxPerM)} px/m at ${need.distanceM} m`;
  const wants = [
    need.level ? `${need.level} needs ${pxPerMOf(need.level)}` : null,
    need.text ? `its text needs ${Math.round(pxPerMForText(need.text.charHeightMm))}` : null,
  ].filter((line) => line !== null);

  const pointAt = (event: PointerEvent): { xM: number; yM: number } => {
    const box = frame.current?.getBoundingClientRect();
    if (!box) return { xM: 0, yM: 0 };
    const factor = WIDTH / box.width;
    return {
      xM: ((event.clientX - box.left) * factor - drawing.left) / scale,
      yM: (GROUND_Y - (event.clientY - box.top) * factor) / scale,
    };
  };
  const setHeight = (heightM: number): void =>
    props.onMounting({ ...mounting, heightM: Number(Math.min(MAX_HEIGHT_M, Math.max(0.3, heightM)).toFixed(1)) });
  const setTilt = (tiltDownDeg: number): void =>
    props.onMounting({ ...mounting, tiltDownDeg: Math.round(Math.min(90, Math.max(-20, tiltDownDeg))) });
  const setDistance = (distanceM: number): void =>
    props.onDistance(Number(Math.min(200, Math.max(0.5, distanceM)).toFixed(1)));

  return (
    <>
      <svg ref={frame} viewBox={`0 0 ${WIDTH} ${GROUND_Y + FOOT}`} className="block w-full touch-none select-none">
        <title>{`From the side: ${mounting.heightM} m high, ${mounting.tiltDownDeg}° down, ${Math.round(face.pxPerM)} px/m at ${need.distanceM} m`}</title>
        <polygon
          points={`${camera.x},${camera.y} ${lower.x},${Math.min(lower.y, GROUND_Y)} ${corner} ${upper.x},${Math.min(upper.y, GROUND_Y)}`}
          fill="var(--verdigris)"
          opacity="0.08"
        />
        <line x1={camera.x} y1={camera.y} x2={lower.x} y2={Math.min(lower.y, GROUND_Y)} stroke="var(--verdigris)" />
        <line x1={camera.x} y1={camera.y} x2={upper.x} y2={Math.min(upper.y, GROUND_Y)} stroke="var(--verdigris)" />
        {beside.map((one) => {
          const [low, high] = raysOf(one.view.vfovDeg);
          return (
            <g key={one.view.lens.label} stroke="var(--verdigris)" strokeDasharray="7 4">
              <line x1={camera.x} y1={camera.y} x2={low.x} y2={Math.min(low.y, GROUND_Y)} />
              <line x1={camera.x} y1={camera.y} x2={high.x} y2={Math.min(high.y, GROUND_Y)} />
            </g>
          );
        })}
        <rect x={x(0) - 10} y={camera.y - 22} width="8" height={GROUND_Y - camera.y + 22} fill="var(--hair)" />
        <line x1="14" x2={WIDTH - 4} y1={GROUND_Y} y2={GROUND_Y} stroke="var(--ink)" strokeWidth="1.3" />

        <Dimension x={30} from={camera.y} to={GROUND_Y} text={`${mounting.heightM} m`} />
        {seenFromM !== null && seenFromM > 0.05 && <Unseen drawing={drawing} toM={seenFromM} />}
        {lightReachM !== null && lightReachM > 0 && lightReachM < endM && (
          <LightEnd drawing={drawing} atM={lightReachM} isOutdoors={need.outdoors} />
        )}

        <LevelBar drawing={drawing} stretches={stretches} endM={endM} />

        <g transform={`translate(${camera.x} ${camera.y}) rotate(${mounting.tiltDownDeg})`}>
          <rect x="-13" y="-8" width="27" height="16" rx="2" fill="var(--ink)" />
          <rect x="14" y="-5" width="6" height="10" fill="var(--ink)" />
        </g>
        <Knob
          label="Mounting height"
          said={`${mounting.heightM} m`}
          at={{ x: camera.x, y: camera.y }}
          value={mounting.heightM}
          range={[0.3, MAX_HEIGHT_M]}
          radius={20}
          onStep={(steps) => setHeight(mounting.heightM + steps * 0.1)}
          onDrag={(event) => setHeight(pointAt(event).yM)}
          onLetGo={props.onLetGo}
        />
        <line
          x1={camera.x + 18 * Math.cos(mounting.tiltDownDeg * DEG)}
          y1={camera.y + 18 * Math.sin(mounting.tiltDownDeg * DEG)}
          x2={handle.x}
          y2={handle.y}
          stroke="var(--verdigris)"
          strokeDasharray="3 3"
        />
        <circle cx={handle.x} cy={handle.y} r="5" fill="var(--sheet)" stroke="var(--verdigris)" strokeWidth="1.8" />
        <text x={handle.x + 8} y={handle.y + 17} className="fill-soft text-[13px]">
          {isNarrow ? `${mounting.tiltDownDeg}°` : `${mounting.tiltDownDeg}° down, ${Math.round(view.hfovDeg)}° wide`}
        </text>
        <Knob
          label="Tilt"
          said={`${mounting.tiltDownDeg}° down`}
          at={handle}
          value={mounting.tiltDownDeg}
          range={[-20, 90]}
          radius={14}
          onStep={(steps) => setTilt(mounting.tiltDownDeg - steps)}
          onDrag={(event) => {
            const { xM, yM } = pointAt(event);
            setTilt(Math.atan2(mounting.heightM - yM, Math.max(0.01, xM)) / DEG);
          }}
          onLetGo={props.onLetGo}
        />

        <Figure x={x(need.distanceM)} y={GROUND_Y} scale={scale} />
        {!isNarrow &&
          [density, ...wants].map((line, at) => (
            <text
              key={line}
              x={Math.min(x(need.distanceM) + 0.5 * scale + 12, WIDTH - 170)}
              y={y(1.25) + 17 * at}
              className={`[paint-order:stroke] ${at === 0 ? 'fill-ink text-[14px] font-strong' : 'fill-soft text-[13px]'}`}
              stroke="var(--sheet)"
              strokeWidth={beside.length > 0 ? 4 : 0}
            >
              {line}
            </text>
          ))}
        <Knob
          label="Distance of the target"
          said={`${need.distanceM} m`}
          at={{ x: x(need.distanceM), y: y(0.9) }}
          value={need.distanceM}
          range={[0.5, 200]}
          radius={Math.max(24, scale * 0.95)}
          onStep={(steps) => setDistance(need.distanceM + steps * 0.5)}
          onDrag={(event) => setDistance(pointAt(event).xM)}
          onLetGo={props.onLetGo}
        />
      </svg>
      {beside.length > 0 && (
        <p className="text-small text-soft">
          {`Solid lines: its ${view.lens.label} lens, ${Math.round(view.hfovDeg)}° wide. Dashed: ${beside.map((one) => `its ${one.view.lens.label} lens, ${Math.round(one.view.hfovDeg)}°`).join('; ')}.`}
        </p>
      )}
      {isNarrow && (
        <p className="text-small">
          <b>{density}</b> <span className="text-soft">{wants.join(' · ')}</span>
        </p>
      )}
    </>
  );
}
