// A head that gives no position is steered by time. Source: least squares; ONVIF PTZ §5.3.3 (continuous moves).

/** One move that was timed, and how far it went. */
export interface TimedTurn {
  readonly runS: number;
  readonly deg: number;
}

/** How a head turns by time: `deg = degPerS × run + offset`. */
export interface TurnCalibration {
  readonly degPerS: number;
  /** Below zero where it is slow to begin. */
  readonly offsetDeg: number;
  /** How long it runs before anything moves. */
  readonly deadTimeS: number;
  /** Of the measurements around the line, with n − 2; of two times, however often, whether it is a line cannot be told. */
  readonly residualDeg: number | null;
}

/**
 * Angle on run time by least squares; `null` when it cannot be told: fewer than two different times, or no motion.
 * [0.5 s 8.1°, 1 s 18.4°, 1.5 s 28.2°, 2 s 38.6°, 3 s 58.9°] → 20.3 °/s, dead for 0.10 s, residual 0.15°.
 */
export function calibrateTurns(turns: readonly TimedTurn[]): TurnCalibration | null {
  const n = turns.length;
  const meanS = turns.reduce((sum, { runS }) => sum + runS, 0) / n;
  const meanDeg = turns.reduce((sum, { deg }) => sum + deg, 0) / n;
  const spread = turns.reduce((sum, { runS }) => sum + (runS - meanS) ** 2, 0);
  if (n < 2 || spread < 1e-9) return null;
  const degPerS = turns.reduce((sum, { runS, deg }) => sum + (runS - meanS) * (deg - meanDeg), 0) / spread;
  if (!Number.isFinite(degPerS) || Math.abs(degPerS) < 1e-6) return null;
  const offsetDeg = meanDeg - degPerS * meanS;
  const left = turns.reduce((sum, { runS, deg }) => sum + (deg - offsetDeg - degPerS * runS) ** 2, 0);
  return {
    degPerS,
    offsetDeg,
    deadTimeS: -offsetDeg / degPerS,
    residualDeg: differentTimes(turns) > 2 ? Math.sqrt(left / (n - 2)) : null,
  };
}

/** [A] Runs that differ by less than this are one length: a device and its network do not keep it better. */
const SAME_RUN_S = 0.08;
function differentTimes(turns: readonly TimedTurn[]): number {
  const times = turns.map(({ runS }) => runS).sort((a, b) => a - b);
  return times.filter((runS, at) => at === 0 || runS - (times[at - 1] ?? runS) > SAME_RUN_S).length;
}

/** How long to run for a turn; 45° at 30 °/s → 1.5 s. */
export const runForTurn = (
  { degPerS, offsetDeg }: Pick<TurnCalibration, 'degPerS' | 'offsetDeg'>,
  deg: number,
): number => (deg - offsetDeg) / degPerS;
