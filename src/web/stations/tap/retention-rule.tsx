import { sayDays } from '../../../core/base/say.ts';
import type { Verdict } from '../../../core/base/verdict.ts';

const FILL: Readonly<Record<Verdict, string>> = {
  ok: 'var(--verdigris)',
  tight: 'var(--brass)',
  'will-not-work': 'var(--brick)',
  unknown: 'var(--faint)',
};

/** Days kept against days wanted, as a ruler: the filled length fits on the disk, the mark is the wish. */
export function RetentionRule({
  daysFit,
  daysWanted,
  verdict,
}: {
  daysFit: number;
  daysWanted: number;
  verdict: Verdict;
}) {
  const span = Math.max(daysWanted * 1.6, Math.min(daysFit * 1.08, daysWanted * 3));
  const at = (days: number): number => Math.min(100, (days / span) * 100);
  const step = span <= 30 ? 1 : span <= 120 ? 7 : 30;
  const ticks = Array.from({ length: Math.floor(span / step) + 1 }, (_, index) => index * step);
  const words = `${sayDays(daysFit)} fit, ${sayDays(daysWanted)} wanted`;
  return (
    <svg width="100%" height="44" role="img" aria-label={words} className="block">
      <title>{words}</title>
      <rect x="0" y="16" width="100%" height="9" fill="var(--grid)" />
      <rect x="0" y="16" width={`${at(daysFit)}%`} height="9" fill={FILL[verdict]} />
      {ticks.map((day) => (
        <line
          key={day}
          x1={`${at(day)}%`}
          x2={`${at(day)}%`}
          y1="25"
          y2={day % (step * 7) === 0 || step > 1 ? 31 : 28}
          stroke="var(--faint)"
        />
      ))}
      <line x1={`${at(daysWanted)}%`} x2={`${at(daysWanted)}%`} y1="10" y2="32" stroke="var(--ink)" strokeWidth="1.6" />
      <text x={`${at(daysWanted)}%`} y="42" textAnchor="middle" fontSize="11.5" fill="var(--soft)">
        {daysWanted} wanted
      </text>
    </svg>
  );
}
