import type { DetailLevel } from '../optics/detail-levels.ts';

/** The nearer and sharper, the fuller the working colour. */
export const LEVEL_FILL: Readonly<Record<DetailLevel, number>> = {
  inspect: 1,
  identify: 0.92,
  recognise: 0.68,
  observe: 0.42,
  detect: 0.24,
  monitor: 0.12,
};
