import type { DetailLevel } from '../../../core/optics/detail-levels.ts';
import type { LevelStretch } from '../../../core/optics/ground-view.ts';

export interface ShownStretch extends LevelStretch {
  /** It goes on beyond the drawing. */
  readonly isLast: boolean;
}

/** Stretches cut off where the drawing ends. */
export const levelsShown = (stretches: readonly LevelStretch[], endM: number): readonly ShownStretch[] =>
  stretches
    .filter(({ fromM }) => fromM < endM)
    .map((stretch) => ({ ...stretch, toM: Math.min(stretch.toM, endM), isLast: stretch.toM >= endM }));

/** Text that stands on a level's colour. */
export const LEVEL_TEXT: Readonly<Record<DetailLevel, string>> = {
  inspect: 'fill-on-verdigris',
  identify: 'fill-on-verdigris',
  recognise: 'fill-on-verdigris',
  observe: 'fill-ink',
  detect: 'fill-ink',
  monitor: 'fill-ink',
};
