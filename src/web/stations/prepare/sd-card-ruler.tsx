import { useId } from 'react';
import { bytes } from '../../../core/base/units.ts';
import { cardSize, MIB, type Partition } from '../../../core/firmware/memory-card.ts';

const WIDTH = 560;
const LEFT = 4;
const RULER_Y = 34;
const RULER_H = 26;

interface CardRulerProps {
  readonly cardBytes: number;
  readonly partition: Partition;
  readonly limitGiB: number | null;
  readonly imageBytes: number | null;
}

/** The memory card as a ruler in MiB: the partition as a hatched stretch, the limit as a mark from above, the image as a sliver. */
export function CardRuler({ cardBytes, partition, limitGiB, imageBytes }: CardRulerProps) {
  const id = useId();
  const { mib, gib } = cardSize(bytes(cardBytes));
  const limitMiB = limitGiB === null ? null : limitGiB * 1024;
  const span = Math.max(mib, partition.sizeMiB, limitMiB ?? 0) * 1.02;
  const x = (at: number): number => LEFT + (at / span) * (WIDTH - 2 * LEFT);
  const tick = [0.25, 0.5, 1, 2, 4, 8, 16, 32, 64, 128, 256, 512].find((one) => span / 1024 / one <= 10) ?? 512;
  const ticks = Array.from({ length: Math.floor(mib / 1024 / tick) + 1 }, (_, at) => at * tick);
  const isTooLarge = limitMiB !== null && partition.sizeMiB > limitMiB;
  const ink = !partition.fits || isTooLarge ? 'var(--brick)' : 'var(--verdigris)';
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 92`}
      className="block w-full max-w-[640px]"
      role="img"
      aria-label={`An SD card of ${gib.toFixed(2)} GiB with a partition of ${partition.sizeMiB} MiB${limitGiB === null ? '' : `, read up to ${limitGiB} GiB`}`}
    >
      <defs>
        <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse">
          <path d="M-1 5 L5 -1 M2 8 L8 2" stroke={ink} strokeWidth="1" />
        </pattern>
      </defs>
      <rect x={x(0)} y={RULER_Y} width={x(mib) - x(0)} height={RULER_H} fill="var(--sheet)" stroke="var(--ink)" />
      <rect
        x={x(partition.startByte / MIB)}
        y={RULER_Y}
        width={Math.max(1, x(partition.sizeMiB) - x(0))}
        height={RULER_H}
        fill={`url(#${id})`}
        stroke={ink}
      />
      {imageBytes !== null && (
        <>
          <rect
            x={x(partition.startByte / MIB)}
            y={RULER_Y + 4}
            width={Math.max(1.5, x(imageBytes / MIB) - x(0))}
            height={RULER_H - 8}
            fill="var(--ink)"
          />
          <text x={x(0)} y="90" fontSize="10" fill="var(--soft)">
            firmware file, {(imageBytes / MIB).toFixed(1)} MiB
          </text>
        </>
      )}
      {ticks.map((at) => (
        <g key={at}>
          <path d={`M${x(at * 1024)} ${RULER_Y + RULER_H} v4`} stroke="var(--faint)" />
          <text
            x={x(at * 1024)}
            y={RULER_Y + RULER_H + 14}
            fontSize="9.5"
            textAnchor={at === 0 ? 'start' : 'middle'}
            fill="var(--soft)"
          >
            {at}
            {at === 0 ? ' GiB' : ''}
          </text>
        </g>
      ))}
      {limitMiB !== null && (
        <g>
          <path
            d={`M${x(limitMiB)} 18 V${RULER_Y + RULER_H}`}
            stroke="var(--brick)"
            strokeWidth="1.6"
            strokeDasharray="4 2"
          />
          <text
            x={Math.min(x(limitMiB), WIDTH - 4)}
            y="13"
            fontSize="10.5"
            textAnchor={x(limitMiB) > WIDTH / 2 ? 'end' : 'start'}
            fill="var(--brick)"
          >
            boot loader limit {limitGiB} GiB
          </text>
        </g>
      )}
    </svg>
  );
}
