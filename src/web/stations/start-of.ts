import type { StationId } from '../../core/stations/registry.ts';
import { STATION_PAGES } from './registry.ts';

const IDS = Object.keys(STATION_PAGES) as readonly StationId[]; // the keys that its type names
const [FIRST = 'choose'] = IDS;
/** The station that a new camera opens at. */
export const startOf = (hangs: boolean): StationId =>
  IDS.find((id) => STATION_PAGES[id].begins === (hangs ? 'hanging' : 'planned')) ?? FIRST;
