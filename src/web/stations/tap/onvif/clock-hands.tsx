import { sayClockError } from './device-words.ts';

const point = (turn: number, length: number): string => {
  const angle = turn * 2 * Math.PI;
  return `${(Math.sin(angle) * length).toFixed(2)} ${(-Math.cos(angle) * length).toFixed(2)}`;
};
/** The hour hand of twelve hours. */
const turnOf = (unixMs: number): number => ((unixMs / 3_600_000) % 12) / 12;
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });

/** Two hands: the time as it was, and as the device said it. Days and years apart are said, since no dial shows them. */
export function ClockHands({ skewS, at }: { skewS: number; at: string }) {
  const trueMs = Date.parse(at);
  const saidMs = trueMs + skewS * 1000;
  const isOff = Math.abs(skewS) >= 1;
  const isGrave = Math.abs(skewS) > 300;
  const colour = !isOff ? 'var(--verdigris)' : isGrave ? 'var(--brick)' : 'var(--brass)';
  return (
    <figure className="m-0 flex items-center gap-3">
      <svg width="72" height="72" viewBox="-36 -36 72 72" role="img" aria-label={`Its clock: ${sayClockError(skewS)}`}>
        <circle r="33" fill="var(--sheet)" stroke="var(--hair)" />
        {Array.from({ length: 12 }, (_, hour) => (
          // the place on the dial is its identity
          // biome-ignore lint/suspicious/noArrayIndexKey: see above
          <path key={hour} d={`M ${point(hour / 12, 29)} L ${point(hour / 12, 33)}`} stroke="var(--faint)" />
        ))}
        <path d={`M 0 0 L ${point(turnOf(trueMs), 22)}`} stroke="var(--ink)" strokeWidth="3" strokeLinecap="round" />
        <path
          d={`M 0 0 L ${point(turnOf(saidMs), 27)}`}
          stroke={colour}
          strokeWidth="1.6"
          strokeDasharray={isOff ? '4 2' : undefined}
        />
        <circle r="2.5" fill="var(--ink)" />
      </svg>
      <figcaption>
        <b>{sayClockError(skewS)}</b>
        <span className="block text-small text-soft">
          it reported {day.format(saidMs)}
          {isOff && <>; it was {day.format(trueMs)}</>}
        </span>
      </figcaption>
    </figure>
  );
}
