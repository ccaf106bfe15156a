import { hasOwn } from '../base/has-own.ts';
import { isRecord } from '../base/is-record.ts';

/** What a door turned out to be, as far as honest bytes tell. */
export type DoorKind = 'rtsp' | 'onvif' | 'http' | 'other';
export const DOOR_KINDS = ['rtsp', 'onvif', 'http', 'other'] as const satisfies readonly DoorKind[];

/** A port that somebody listens on. */
export interface SeenDoor {
  readonly port: number;
  readonly is: DoorKind;
  /** What it calls its software: the Server line. */
  readonly server: string;
  /** Of its web page. */
  readonly title: string;
  /** It took long to say a word, or said none. */
  readonly isSlow: boolean;
}

/** One address at which something is. */
export interface SeenHost {
  readonly host: string;
  /** Hardware address, from the table of neighbours; empty where no table had it. */
  readonly mac: string;
  /** Identities of ONVIF endpoints that answered from here; more than one is odd. */
  readonly endpoints: readonly string[];
  readonly name: string;
  /** Model, as it says itself. */
  readonly hardware: string;
  readonly serial: string;
  readonly doors: readonly SeenDoor[];
  /** Other addresses that it gives as its own. */
  readonly alsoAt: readonly string[];
  /** It took every call that was made: what it says at each of them means little. */
  readonly answersAll: boolean;
}

export const SEEN_LIMITS = { doors: 32, endpoints: 4, alsoAt: 4, text: 80 } as const;

export const unknownHost = (host: string): SeenHost => ({
  host,
  mac: '',
  endpoints: [],
  name: '',
  hardware: '',
  serial: '',
  doors: [],
  alsoAt: [],
  answersAll: false,
});

/** As the journal keeps it: one text for one host. */
export const writeSeen = (seen: SeenHost): string => JSON.stringify(seen);

const isTexts = (value: unknown): value is readonly string[] =>
  Array.isArray(value) && value.every((one) => typeof one === 'string');
const isDoor = (value: unknown): value is SeenDoor =>
  isRecord(value) &&
  typeof value.port === 'number' &&
  DOOR_KINDS.some((kind) => kind === value.is) &&
  typeof value.server === 'string' &&
  typeof value.title === 'string' &&
  typeof value.isSlow === 'boolean';

/** What the journal kept of a host; `null` where somebody else wrote it. */
export function readSeen(text: string): SeenHost | null {
  let value: unknown;
  try {
    value = JSON.parse(text); // the journal bounds its length, and nothing below walks deeper than two levels
  } catch {
    return null;
  }
  if (!isRecord(value)) return null;
  const one = value;
  const texts = ['host', 'mac', 'name', 'hardware', 'serial'].every(
    (name) => hasOwn(one, name) && typeof one[name] === 'string',
  );
  const isHost =
    texts &&
    isTexts(one.endpoints) &&
    isTexts(one.alsoAt) &&
    Array.isArray(one.doors) &&
    one.doors.every(isDoor) &&
    typeof one.answersAll === 'boolean';
  return isHost ? (one as unknown as SeenHost) : null; // each of its fields was just looked at
}
