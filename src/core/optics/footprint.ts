import { DETAIL_LEVELS, type DetailLevel, levelAt } from './detail-levels.ts';
import type { LensView } from './lens-view.ts';
import type { Aim } from './picture-geometry.ts';
import { draw, straightLine } from './projection.ts';

const DEG = Math.PI / 180;

/** A stretch of the ground on which one level is reached. */
export interface LevelStretch {
  readonly level: DetailLevel;
  readonly fromM: number;
  readonly toM: number;
}

/** A lens over the ground: how it looks, how it hangs, and at what height its detail is wanted. */
export interface LensOverGround {
  readonly view: LensView;
  readonly aim: Aim;
  readonly heightM: number;
  /** Nothing farther is asked for. */
  readonly maxM: number;
}

/** The level at a point of the ground, in polar terms; `null` where its feet are outside the picture. */
function levelAlong({ view, aim, heightM }: LensOverGround, bearingDeg: number, distanceM: number): DetailLevel | null {
  const spot = {
    aheadM: distanceM * Math.cos(bearingDeg * DEG),
    rightM: distanceM * Math.sin(bearingDeg * DEG),
  };
  if (!draw(view, aim, { ...spot, heightM: 0 }).isInView) return null;
  const level = levelAt(draw(view, aim, { ...spot, heightM }).acrossPxPerM);
  return level === 'below-monitor' ? null : level;
}

/** Distances along a bearing at which a straight lens may begin or end to see, or pass from one level to another. */
function straightBreaks({ view, aim, heightM }: LensOverGround, bearingDeg: number): readonly number[] {
  const line = {
    aheadM: 0,
    rightM: 0,
    towards: [Math.cos(bearingDeg * DEG), Math.sin(bearingDeg * DEG)],
  } as const;
  const { depth } = straightLine(view, aim, { ...line, heightM });
  return [
    ...straightLine(view, aim, { ...line, heightM: 0 }).sides.map(([fixed, share]) => -fixed / share),
    ...DETAIL_LEVELS.map(({ pxPerM }) => (view.focalPx / pxPerM - depth[0]) / depth[1]),
  ];
}

const SAMPLES = 32;
const ROUNDS = 14;

/** The same of a bending lens, looked for: near ones closer together, since there levels are short. */
function bentBreaks(over: LensOverGround, bearingDeg: number): readonly number[] {
  const breaks: number[] = [];
  const at = (sample: number): number => over.maxM * (sample / SAMPLES) ** 2;
  let before = levelAlong(over, bearingDeg, 1e-3);
  for (let sample = 1; sample <= SAMPLES; sample++) {
    let from = at(sample - 1);
    const after = levelAlong(over, bearingDeg, at(sample));
    // Levels may be shorter than the way between two samples: each is followed to its end.
    for (let count = 0; before !== after && count < DETAIL_LEVELS.length + 1; count++) {
      let [inside, outside] = [from, at(sample)];
      for (let round = 0; round < ROUNDS; round++) {
        const middle = (inside + outside) / 2;
        if (levelAlong(over, bearingDeg, middle) === before) inside = middle;
        else outside = middle;
      }
      breaks.push(outside);
      before = levelAlong(over, bearingDeg, outside);
      from = outside;
    }
    before = after;
  }
  return breaks;
}

/** What is seen along one direction of the ground, nearest first. @param bearingDeg to the right of the heading */
export function stretchesAlong(over: LensOverGround, bearingDeg: number): readonly LevelStretch[] {
  const breaks =
    over.view.lens.projection === 'pinhole' ? straightBreaks(over, bearingDeg) : bentBreaks(over, bearingDeg);
  const stops = [0, ...breaks.filter((stop) => stop > 0 && stop < over.maxM), over.maxM].sort((a, b) => a - b);
  const stretches: LevelStretch[] = [];
  for (const [index, toM] of stops.entries()) {
    const fromM = stops[index - 1];
    if (fromM === undefined || toM - fromM < 1e-6) continue;
    const level = levelAlong(over, bearingDeg, (fromM + toM) / 2);
    const last = stretches.at(-1);
    if (level && last?.level === level && last.toM === fromM) stretches[stretches.length - 1] = { ...last, toM };
    else if (level) stretches.push({ level, fromM, toM });
  }
  return stretches;
}

/** Fine enough that no door slips between two rays at twenty metres. */
const STEP_DEG = 1.5;
const SEARCH_DEG = 3;

/** One direction and what is seen along it. */
export interface GroundRay {
  readonly bearingDeg: number;
  readonly stretches: readonly LevelStretch[];
}

/**
 * What a lens sees of the ground, direction by direction from left to right: its picture as it falls on the floor. Straight
 * down it is all around; of a lens that looks above the ground there is nothing.
 */
export function footprint(over: LensOverGround): readonly GroundRay[] {
  const { axisDeg } = over.view.lens;
  const sees = (deg: number): boolean => stretchesAlong(over, deg).length > 0;
  if (!sees(axisDeg)) return [];
  const rimDeg = (towards: 1 | -1): number => {
    let inside = 0;
    while (inside < 180 && sees(axisDeg + towards * (inside + SEARCH_DEG))) inside += SEARCH_DEG;
    if (inside >= 180) return 180;
    let outside = inside + SEARCH_DEG;
    for (let round = 0; round < ROUNDS; round++) {
      const middle = (inside + outside) / 2;
      if (sees(axisDeg + towards * middle)) inside = middle;
      else outside = middle;
    }
    return inside;
  };
  const [left, right] = [rimDeg(-1), rimDeg(1)];
  const count = Math.max(2, Math.ceil((left + right) / STEP_DEG) + 1);
  return Array.from({ length: count }, (_, at) => {
    const bearingDeg = axisDeg - left + ((left + right) * at) / (count - 1);
    return { bearingDeg, stretches: stretchesAlong(over, bearingDeg) };
  });
}
