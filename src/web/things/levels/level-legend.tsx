import { LEVEL_FILL } from '../../../core/handover/level-fill.ts';
import { DETAIL_LEVELS } from '../../../core/optics/detail-levels.ts';

/** Which fullness of colour is which level, and its pixels. */
export function LevelLegend() {
  return (
    <p className="mt-1.5 flex flex-wrap gap-x-4 gap-y-1 text-small text-soft">
      {DETAIL_LEVELS.toReversed().map(({ level, pxPerM }) => (
        <span key={level} className="inline-flex items-center gap-1.5">
          <span
            className="inline-block h-2.5 w-4 border border-hair bg-verdigris"
            style={{ opacity: LEVEL_FILL[level] }}
          />
          {level} {pxPerM} px/m
        </span>
      ))}
    </p>
  );
}
