import type { Wall } from '../../../base/plan-geometry.ts';
import { between, rangeProblem } from '../../../base/range.ts';

/** An image under the plan, re-encoded when it was taken in. */
export interface PlanPicture {
  readonly name: string;
  readonly dataUrl: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly metresPerPx: number;
  /** False until two points and a length were given. */
  readonly isScaled: boolean;
}

/** What is drawn: a sheet to scale, a picture beneath it, walls. */
export interface DrawnPlan {
  readonly widthM: number;
  readonly heightM: number;
  readonly picture: PlanPicture | null;
  readonly walls: readonly Wall[];
  /** Where north lies, clockwise from the top of the sheet; `null` when nobody said. */
  readonly northDeg: number | null;
}

export const EMPTY_PLAN: DrawnPlan = { widthM: 40, heightM: 26, picture: null, walls: [], northDeg: null };

/** Of the arrow of the north. */
export const NORTH_DEG = between(0, 360, '°');

/** Of a sheet's sides: a site is a house and its land. */
export const SHEET_SIDE_M = between(2, 5000, 'm');
/** Whether a sheet of such sides can be drawn on; a slip of the finger makes a house as large as a town. */
export const isSheet = (...sidesM: readonly number[]): boolean =>
  sidesM.every((side) => rangeProblem(SHEET_SIDE_M, side) === null);
