import { type Check, type ChecksOf, flag, listOf, record, text, whole, word } from '../base/check.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { PORT_RANGE } from '../net/port-range.ts';
import { DOOR_KINDS, SEEN_LIMITS, type SeenDoor, type SeenHost } from './seen.ts';

const said = text(TEXT_LIMITS.place);
const DOOR: ChecksOf<SeenDoor> = {
  port: whole(PORT_RANGE.min, PORT_RANGE.max),
  is: word(DOOR_KINDS),
  server: said,
  title: said,
  isSlow: flag,
};
const HOST: ChecksOf<SeenHost> = {
  host: text(TEXT_LIMITS.host, 1),
  mac: text(TEXT_LIMITS.mac),
  endpoints: listOf(text(TEXT_LIMITS.endpoint), SEEN_LIMITS.endpoints),
  name: said,
  hardware: said,
  serial: said,
  doors: listOf(record<SeenDoor>(DOOR), SEEN_LIMITS.doors),
  alsoAt: listOf(said, SEEN_LIMITS.alsoAt),
  answersAll: flag,
};

/** Why a host that a sweep saw cannot be kept; `null` when it can. */
export const checkSeenHost: Check = record<SeenHost>(HOST);
