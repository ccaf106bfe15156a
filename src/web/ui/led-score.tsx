import { useId } from 'react';
import { type LedColour, type LedPattern, ledBars, sayLed } from '../../core/firmware/led.ts';

/** What a bar of each colour looks like besides its colour: who sees no colours tells them by their filling. */
const FILLS: Readonly<
  Record<LedColour, { readonly ink: string; readonly filling: 'full' | 'lines' | 'dots' | 'slant' | 'none' }>
> = {
  red: { ink: 'var(--brick)', filling: 'full' },
  amber: { ink: 'var(--brass)', filling: 'slant' },
  green: { ink: 'var(--verdigris)', filling: 'dots' },
  blue: { ink: 'var(--blue)', filling: 'lines' },
  white: { ink: 'var(--ink)', filling: 'none' },
};

const SPAN_MS = 4800;
const WIDTH = 240;
const HEIGHT = 34;
const BAR_TOP = 4;
const BAR_HEIGHT = 20;

/**
 * A lamp as a score (bare: without its seconds): time runs to the right, light is a bar in its colour and filling. What is slow and what is fast is
 * seen without waiting for it. A letter names the colour.
 */
export function LedScore({ sign, isBare = false }: { sign: LedPattern; isBare?: boolean }) {
  const id = useId();
  const { ink, filling } = FILLS[sign.colour];
  const scale = WIDTH / SPAN_MS;
  const fill = filling === 'full' ? ink : filling === 'none' ? 'var(--sheet)' : `url(#${id})`;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${isBare ? BAR_TOP + BAR_HEIGHT + 6 : HEIGHT}`}
      className="block w-full max-w-60"
      role="img"
      aria-label={sayLed(sign)}
    >
      <title>{sayLed(sign)}</title>
      <defs>
        <pattern id={id} width="5" height="5" patternUnits="userSpaceOnUse">
          {filling === 'lines' && <path d="M0 1.5 H5 M0 4 H5" stroke={ink} strokeWidth="1.4" />}
          {filling === 'slant' && <path d="M-1 4 L4 -1 M1 6 L6 1" stroke={ink} strokeWidth="1.6" />}
          {filling === 'dots' && <circle cx="2.5" cy="2.5" r="1.5" fill={ink} />}
        </pattern>
      </defs>
      <path d={`M0 ${BAR_TOP + BAR_HEIGHT} H${WIDTH}`} stroke="var(--hair)" />
      {[1, 2, 3, 4].map((second) => (
        <g key={second}>
          <path d={`M${second * 1000 * scale} ${BAR_TOP + BAR_HEIGHT} v3`} stroke="var(--faint)" />
          {!isBare && (
            <text x={second * 1000 * scale} y={HEIGHT - 1} fontSize="8" textAnchor="middle" fill="var(--soft)">
              {second} s
            </text>
          )}
        </g>
      ))}
      {sign.rhythm === 'off' ? (
        <text x="4" y={BAR_TOP + 14} fontSize="14" fill="var(--soft)">
          LED off
        </text>
      ) : (
        ledBars(sign, SPAN_MS).map(({ fromMs, ms }) => (
          <rect
            key={fromMs}
            x={fromMs * scale}
            y={BAR_TOP}
            width={Math.max(1, ms * scale - 0.6)}
            height={BAR_HEIGHT}
            fill={fill}
            stroke={ink}
          />
        ))
      )}
    </svg>
  );
}
