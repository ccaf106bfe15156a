import { HEAR } from './hear-work.ts';
import { LIVE } from './live-work.ts';
import { ONVIF } from './onvif-work.ts';
import { ENOUGH, PROBE } from './probe-work.ts';
import { PTZ_WORK } from './ptz-work.ts';
import { SCAN } from './scan-work.ts';
import { SESSIONS } from './sessions-work.ts';
import { STILL } from './still-work.ts';
import type { Work } from './work.ts';

/** POST /api/NAME: one answer of JSON lines, as they happen; hanging up cancels. */
export const LINE_WORKS: ReadonlyMap<string, Work> = new Map([
  ['probe', PROBE],
  ['enough', ENOUGH],
  ['scan', SCAN],
  ['onvif', ONVIF],
  ['hear', HEAR],
  ['sessions', SESSIONS],
  ['still', STILL],
]);

/**
 * A WebSocket at /api/NAME: the first message asks, closing cancels. For work that shows pictures, or is steered while it
 * runs: a browser opens six requests to one server, over all its tabs, and six pictures would keep every probe waiting.
 */
export const SOCKET_WORKS: ReadonlyMap<string, Work> = new Map([
  ['live', LIVE],
  ['steer', PTZ_WORK],
]);
