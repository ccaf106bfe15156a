import { assumed, type ChangedAssumptions } from '../assumptions/assumptions.ts';
import type { Point, Wall } from '../base/plan-geometry.ts';
import type { RadioBand } from '../base/ways.ts';
import { radioKind } from './radio-kinds.ts';

/** A radio on a channel; `null` where nobody looked which. */
interface OnAir {
  readonly band: RadioBand;
  readonly radio: string;
  readonly channel: number | null;
}

/** 5 GHz: channels are numbered by 5 MHz, and those of 80 MHz come in blocks of four. Source: IEEE 802.11, table E-4. */
const BLOCKS_80_MHZ = [36, 52, 100, 116, 132, 149, 165] as const;
const blockOf = (channel: number): number => BLOCKS_80_MHZ.findLast((first) => first <= channel) ?? 0;

/**
 * Whether two radios take of the same air: at 2.4 GHz channels of 20 MHz that lie less than five apart, at 5 GHz any two of
 * one block where either is 80 MHz wide, else the same channel. Source: IEEE 802.11.
 */
export function sharesAir(a: OnAir, b: OnAir): boolean {
  if (a.band !== b.band || a.channel === null || b.channel === null) return false;
  if (a.band === '2.4') return Math.abs(a.channel - b.channel) < 5;
  const widest = Math.max(...[a, b].map(({ radio }) => radioKind(radio)?.widthMHz ?? 20));
  return widest >= 80 ? blockOf(a.channel) === blockOf(b.channel) : a.channel === b.channel;
}

const MIDDLE_MHZ: Readonly<Record<RadioBand, number>> = { '2.4': 2440, '5': 5500, 'sub-GHz': 868 };

/**
 * Loss of free space, dB: 20·log₁₀(d) + 20·log₁₀(f) − 27.55, d in m, f in MHz.
 * Source: Friis. 2.44 GHz over 10 m → 60 dB. Nearer than a metre it is not what happens; a metre is taken then.
 */
export const freeSpaceLossDb = (distanceM: number, mhz: number): number =>
  20 * Math.log10(Math.max(1, distanceM)) + 20 * Math.log10(mhz) - 27.55;

/** Share of the air's time that a stream takes. More than 1 does not fit. */
export const airtimeShare = (rateMbps: number, phyMbps: number, efficiency: number): number =>
  rateMbps / (phyMbps * efficiency);

/** Whether two stretches cross; touching ends count. */
export function crosses(a: Point, b: Point, c: Point, d: Point): boolean {
  const side = (p: Point, q: Point, r: Point): number => (q.xM - p.xM) * (r.yM - p.yM) - (q.yM - p.yM) * (r.xM - p.xM);
  const [s1, s2, s3, s4] = [side(c, d, a), side(c, d, b), side(a, b, c), side(a, b, d)];
  return s1 * s2 <= 0 && s3 * s4 <= 0 && !(s1 === 0 && s2 === 0);
}

/** Nearer than this along the way, two crossings of one material are the joint of a wall that was drawn in pieces. */
const JOINT_M = 0.01;

/** Walls that a way goes through, each joint counted once. */
export function wallsBetween(walls: readonly Wall[], a: Point, b: Point): readonly Wall[] {
  const through: { readonly wall: Wall; readonly atM: number }[] = [];
  for (const wall of walls) {
    if (!crosses(a, b, wall.from, wall.to)) continue;
    const atM = crossingM(a, b, wall);
    const isJoint = through.some(
      (one) => one.wall.material === wall.material && Math.abs(one.atM - atM) < JOINT_M && sharesEnd(one.wall, wall),
    );
    if (!isJoint) through.push({ wall, atM });
  }
  return through.map(({ wall }) => wall);
}

const sharesEnd = (a: Wall, b: Wall): boolean =>
  [a.from, a.to].some((end) =>
    [b.from, b.to].some((other) => Math.hypot(end.xM - other.xM, end.yM - other.yM) < JOINT_M),
  );

/** How far along the way from `a` it meets the line of a wall, m. */
function crossingM(a: Point, b: Point, { from, to }: Wall): number {
  const [dx, dy, ex, ey] = [b.xM - a.xM, b.yM - a.yM, to.xM - from.xM, to.yM - from.yM];
  const across = dx * ey - dy * ex;
  const share = across === 0 ? 0 : ((from.xM - a.xM) * ey - (from.yM - a.yM) * ex) / across;
  return share * Math.hypot(dx, dy);
}

export interface SignalEstimate {
  readonly rssiDbm: number;
  readonly distanceM: number;
  readonly walls: readonly Wall[];
}

/** What arrives of a radio over a distance and through the walls of the plan. */
export function estimateSignal(
  { band, eirpDbm }: { readonly band: RadioBand; readonly eirpDbm: number },
  from: Point,
  to: Point,
  allWalls: readonly Wall[],
  assumptions: ChangedAssumptions,
): SignalEstimate {
  const distanceM = Math.hypot(to.xM - from.xM, to.yM - from.yM);
  const walls = wallsBetween(allWalls, from, to);
  const wallDb = walls.reduce((sum, { material }) => sum + assumed(assumptions, `air.wall-${material}`), 0);
  return { rssiDbm: eirpDbm - freeSpaceLossDb(distanceM, MIDDLE_MHZ[band]) - wallDb, distanceM, walls };
}
