import type { StationId } from '../../core/stations/registry.ts';
import { ADDRESS } from './address/index.ts';
import { CHOOSE } from './choose/index.ts';
import { HAND_OVER } from './hand-over/index.ts';
import { POWER } from './power/index.ts';
import { PREPARE } from './prepare/index.ts';
import type { StationPage } from './station-page.ts';
import { TAP } from './tap/index.ts';

/** The page of each station. Names and order are those of core's registry. */
export const STATION_PAGES: Readonly<Record<StationId, StationPage>> = {
  choose: CHOOSE,
  power: POWER,
  prepare: PREPARE,
  address: ADDRESS,
  tap: TAP,
  'hand-over': HAND_OVER,
};
