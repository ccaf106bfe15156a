import { ADDRESS } from './address/index.ts';
import { CHOOSE } from './choose/index.ts';
import { HAND_OVER } from './hand-over/index.ts';
import { POWER } from './power/index.ts';
import { PREPARE } from './prepare/index.ts';
import { TAP } from './tap/index.ts';

/** The stations that exist, in working order. Whoever needs a list of them reads it here; nothing else counts them. */
export const STATIONS = [CHOOSE, POWER, PREPARE, ADDRESS, TAP, HAND_OVER] as const;
export type StationId = (typeof STATIONS)[number]['id'];
