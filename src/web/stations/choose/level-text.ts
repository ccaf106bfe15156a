import type { DetailLevel } from '../../../core/optics/detail-levels.ts';

/** Text that stands on a level's colour. */
export const LEVEL_TEXT: Readonly<Record<DetailLevel, string>> = {
  inspect: 'fill-on-verdigris',
  identify: 'fill-on-verdigris',
  recognise: 'fill-on-verdigris',
  observe: 'fill-ink',
  detect: 'fill-ink',
  monitor: 'fill-ink',
};
