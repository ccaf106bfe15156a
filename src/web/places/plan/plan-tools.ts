import type { Point } from '../../../core/base/plan-geometry.ts';

export const TOOLS = ['move', 'wall', 'route', 'scale'] as const;
export type Tool = (typeof TOOLS)[number];

/** Where a drawing tool stands: points that are set, and where the next one would be. */
export interface Drawing {
  readonly points: readonly Point[];
  readonly cursor: Point | null;
}
export const NOTHING_DRAWN: Drawing = { points: [], cursor: null };

const GRID_M = 0.5;
/** To half a metre, as one paces a house; finer while Alt is held. */
export const snapped = ({ xM, yM }: Point, isFree: boolean): Point => {
  const step = isFree ? 0.01 : GRID_M;
  const near = (value: number): number => Number((Math.round(value / step) * step).toFixed(2));
  return { xM: near(xM), yM: near(yM) };
};

export const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
