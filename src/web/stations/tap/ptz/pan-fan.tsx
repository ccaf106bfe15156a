import { useRef, useState } from 'react';
import type { HeadReach } from './ptz-geometry.ts';

const RADIUS = 150;
const point = (deg: number, radius: number): readonly [number, number] => {
  const angle = ((deg - 90) * Math.PI) / 180;
  return [Math.cos(angle) * radius, Math.sin(angle) * radius];
};
const at = (deg: number, radius: number): string =>
  point(deg, radius)
    .map((value) => value.toFixed(1))
    .join(' ');

function sector(fromDeg: number, toDeg: number, radius: number): string {
  if (toDeg - fromDeg >= 359.9)
    return `M ${at(0, radius)} A ${radius} ${radius} 0 1 1 ${at(180, radius)} A ${radius} ${radius} 0 1 1 ${at(0, radius)} Z`;
  const isLarge = toDeg - fromDeg > 180 ? 1 : 0;
  return `M 0 0 L ${at(fromDeg, radius)} A ${radius} ${radius} 0 ${isLarge} 1 ${at(toDeg, radius)} Z`;
}

export interface Notch {
  readonly id: string;
  readonly name: string;
  readonly deg: number;
}

/** As a name of so many letters needs, in degrees at the ring where it stands. */
const needsDeg = (name: string, radius: number): number => (((name.length * 6.6 + 8) / radius) * 180) / Math.PI;
const NAME_RADIUS = RADIUS - 34;
const RING = 22;
const MOST_RINGS = 4;

/** Each name on the outermost ring where it stands clear of those before it. */
function onRings(notches: readonly Notch[]): readonly (Notch & { readonly radius: number })[] {
  const ends: number[] = [];
  return [...notches]
    .sort((a, b) => a.deg - b.deg)
    .map((notch) => {
      let ring = 0;
      const half = (at: number): number => needsDeg(notch.name, NAME_RADIUS - at * RING) / 2;
      while (ring < MOST_RINGS - 1 && (ends[ring] ?? -999) > notch.deg - half(ring)) ring += 1;
      ends[ring] = notch.deg + half(ring);
      return { ...notch, radius: NAME_RADIUS - ring * RING };
    });
}

interface PanFanProps {
  readonly reach: HeadReach;
  /** What the head reports, or what was counted since it stood at a known place; `null` where nothing tells. */
  readonly reportedDeg: number | null;
  readonly isCounted: boolean;
  /** The head has said what it can; before that nothing is known of it. */
  readonly isAsked: boolean;
  readonly askedDeg: number | null;
  readonly viewDeg: number | null;
  /** How wide the zone is that the need asks for, about straight on. */
  readonly zoneDeg: number | null;
  readonly notches: readonly Notch[];
  /** It may be dragged to where it is to look; `null` where it cannot be sent there. */
  readonly onAsk: ((deg: number) => void) | null;
}

/**
 * Where the head can look, seen from above with straight on at the top: its reach a fan, what it reports a line, what was
 * asked a second one; the angle between both is the error.
 */
export function PanFan({
  reach,
  reportedDeg,
  isCounted,
  isAsked,
  askedDeg,
  viewDeg,
  zoneDeg,
  notches,
  onAsk,
}: PanFanProps) {
  const svg = useRef<SVGSVGElement>(null);
  const [draggedDeg, setDraggedDeg] = useState<number | null>(null);
  const { minDeg, maxDeg } = reach.pan;
  const degOf = (event: React.PointerEvent): number | null => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return null;
    const scale = 360 / box.width;
    const x = (event.clientX - box.left) * scale - 180;
    const y = (event.clientY - box.top) * scale - 176;
    if (Math.hypot(x, y) < 12) return null;
    const deg = (Math.atan2(y, x) * 180) / Math.PI + 90;
    const turned = deg > 180 ? deg - 360 : deg;
    return Math.min(maxDeg, Math.max(minDeg, turned));
  };
  const shownAsk = draggedDeg ?? askedDeg;
  const error = reportedDeg !== null && askedDeg !== null ? reportedDeg - askedDeg : null;
  const words = [
    reportedDeg === null
      ? isAsked
        ? 'It does not report its position'
        : 'Its position is not known yet'
      : `${isCounted ? 'Counted' : 'It reports'} ${reportedDeg.toFixed(1)}°`,
    askedDeg === null ? null : `asked ${askedDeg.toFixed(1)}°`,
    error === null || Math.abs(error) < 0.05 ? null : `off by ${Math.abs(error).toFixed(1)}°`,
  ].filter((part) => part !== null);
  return (
    <figure className="m-0">
      <svg
        ref={svg}
        viewBox="-180 -176 360 330"
        className={`block w-full max-w-[420px] touch-none ${onAsk ? 'cursor-crosshair' : ''}`}
        role="img"
        aria-label={`Pan range of the PTZ. ${words.join(', ')}.`}
        onPointerDown={(event) => {
          if (!onAsk) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          setDraggedDeg(degOf(event));
        }}
        onPointerMove={(event) => draggedDeg !== null && setDraggedDeg(degOf(event))}
        onPointerUp={() => {
          if (draggedDeg !== null) onAsk?.(draggedDeg);
          setDraggedDeg(null);
        }}
        onPointerCancel={() => setDraggedDeg(null)}
      >
        <defs>
          <pattern id="zone-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V7" stroke="var(--brass)" strokeWidth="1.4" />
          </pattern>
        </defs>
        <path
          d={sector(minDeg, maxDeg, RADIUS)}
          fill="var(--sheet)"
          stroke="var(--hair)"
          strokeDasharray={reach.isKnown ? undefined : '3 3'}
        />
        {zoneDeg !== null && (
          <path d={sector(-zoneDeg / 2, zoneDeg / 2, RADIUS)} fill="url(#zone-hatch)" opacity="0.55" />
        )}
        {Array.from({ length: 25 }, (_, step) => (step - 12) * 15)
          .filter((deg) => deg >= minDeg && deg <= maxDeg && deg > -180)
          .map((deg) => (
            <g key={deg}>
              <path d={`M ${at(deg, RADIUS - (deg % 45 === 0 ? 10 : 5))} L ${at(deg, RADIUS)}`} stroke="var(--faint)" />
              {deg % 45 === 0 && (
                <text
                  transform={`translate(${at(deg, RADIUS + 14)})`}
                  textAnchor="middle"
                  dominantBaseline="middle"
                  fontSize="12"
                  fill="var(--soft)"
                >
                  {deg}°
                </text>
              )}
            </g>
          ))}
        {reportedDeg !== null && viewDeg !== null && (
          <path
            d={sector(reportedDeg - viewDeg / 2, reportedDeg + viewDeg / 2, RADIUS - 40)}
            fill="var(--verdigris-wash)"
            stroke="none"
            opacity="0.8"
          />
        )}
        {onRings(notches).map(({ id, name, deg, radius }) => (
          <g key={id}>
            <path d={`M ${at(deg, RADIUS - 22)} L ${at(deg, RADIUS)}`} stroke="var(--ink)" strokeWidth="2" />
            <text
              transform={`translate(${at(deg, radius)})`}
              textAnchor="middle"
              dominantBaseline="middle"
              fontSize="12"
              fill="var(--ink)"
            >
              {name}
            </text>
          </g>
        ))}
        {shownAsk !== null && (
          <path d={`M 0 0 L ${at(shownAsk, RADIUS)}`} stroke="var(--ink)" strokeWidth="1.4" strokeDasharray="5 4" />
        )}
        {reportedDeg !== null && (
          <path
            d={`M 0 0 L ${at(reportedDeg, RADIUS - 6)}`}
            stroke="var(--verdigris)"
            strokeWidth="3"
            strokeDasharray={isCounted ? '2 3' : undefined}
          />
        )}
        <circle r="5" fill="var(--ink)" />
      </svg>
      <figcaption className="text-small text-soft">
        {words.join(' · ')}
        {!reach.isKnown && ' · its model card gives no pan range: a full turn is drawn'}
      </figcaption>
    </figure>
  );
}
