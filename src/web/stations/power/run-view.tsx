import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { RunNumbers } from '../../../core/stations/power/index.ts';
import { Drop } from '../../ui/drop.tsx';

/** Volts along a low-voltage run as a scale: where it ends by day and at night, and below what it dies. */
export function RunView({ run }: { run: RunNumbers }) {
  const { supplyVolts, minVolts, dayVolts, nightVolts } = run;
  const to = Math.max(supplyVolts, minVolts);
  const from = Math.min(minVolts - Math.abs(supplyVolts - minVolts) * 0.6, nightVolts ?? supplyVolts);
  const x = (volts: number): number => 8 + ((volts - from) / (to - from || 1)) * 584;
  return (
    <div className="mt-3">
      <svg viewBox="0 0 600 66" className="block w-full max-w-[600px]">
        <title>
          {`${supplyVolts} V supplied; ${nightVolts === null ? 'no voltage at the camera' : `${nightVolts.toFixed(2)} V arrive`} at night, ${minVolts} V needed`}
        </title>
        <rect x={x(from)} y="26" width={x(minVolts) - x(from)} height="12" fill="var(--brick-wash)" />
        <rect
          x={x(minVolts)}
          y="26"
          width={Math.max(0, x(supplyVolts) - x(minVolts))}
          height="12"
          fill="var(--verdigris-wash)"
        />
        <line x1={x(minVolts)} x2={x(minVolts)} y1="20" y2="44" stroke="var(--brick)" strokeWidth="1.6" />
        <text
          x={x(minVolts)}
          y="60"
          textAnchor={supplyVolts > minVolts ? 'middle' : 'end'}
          className="fill-brick text-[13px]"
        >
          {minVolts} V needed
        </text>
        <text
          x={x(supplyVolts)}
          y="60"
          textAnchor={supplyVolts > minVolts ? 'end' : 'start'}
          className="fill-soft text-[13px]"
        >
          {supplyVolts} V given
        </text>
        {dayVolts !== null && <circle cx={x(dayVolts)} cy="32" r="5" fill="var(--sheet)" stroke="var(--ink)" />}
        {nightVolts !== null && <circle cx={x(nightVolts)} cy="32" r="5.5" fill="var(--ink)" />}
        {nightVolts !== null && (
          <text
            x={Math.max(72, Math.min(528, x(nightVolts)))}
            y="16"
            textAnchor="middle"
            className="fill-ink font-mono text-[14px] font-strong"
          >
            {nightVolts.toFixed(2)} V at night
          </text>
        )}
      </svg>
      <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        <dt className="text-soft">at the camera</dt>
        <dd className="flex items-center gap-1.5">
          <Drop verdict={run.verdict} size={16} />
          <span className="font-mono">
            {nightVolts === null ? 'the voltage collapses' : `${nightVolts.toFixed(2)} V at night`}
            {dayVolts !== null && `, ${dayVolts.toFixed(2)} V by day`}
          </span>
          <span className="text-small text-soft">{VERDICT_WORDS[run.verdict]}</span>
        </dd>
        <dt className="text-soft">longest run of this cable</dt>
        <dd className="font-mono">
          {run.longestM > 0 ? `${run.longestM.toFixed(1)} m` : 'none'} · {run.areaMm2} mm²
        </dd>
        <dt className="text-soft">thinnest cable that holds</dt>
        <dd className="font-mono">
          {run.pickMm2 === null
            ? 'none that is sold'
            : `${run.pickMm2} mm²${run.thinnestMm2 > 0 ? ` (${run.thinnestMm2.toFixed(2)} computed)` : ''}`}
        </dd>
      </dl>
    </div>
  );
}
