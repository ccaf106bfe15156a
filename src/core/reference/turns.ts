/** The shorter way round of a head that turns without end, above −180° up to 180°. */
export function shortestPan(fromDeg: number, toDeg: number): number {
  const delta = ((((toDeg - fromDeg + 180) % 360) + 360) % 360) - 180;
  return delta === -180 ? 180 : delta;
}

/** How far a head turns at a share of its top speed. */
export const degreesTurned = (velocity: number, maxDegPerS: number, seconds: number): number =>
  velocity * maxDegPerS * seconds;
