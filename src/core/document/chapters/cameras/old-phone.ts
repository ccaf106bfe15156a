import { above0 } from '../../../base/range.ts';
import { HEAT_RANGES, type Mount, type Screen } from '../../../old-phone/heat.ts';

export const OLD_PHONE_LENSES = ['back', 'front'] as const;
export type OldPhoneLens = (typeof OLD_PHONE_LENSES)[number];

/** Who carries its picture: a server on the handset itself, or the account of a maker. */
export const OLD_PHONE_WAYS = ['local', 'account'] as const;
export type OldPhoneWay = (typeof OLD_PHONE_WAYS)[number];

/** How an old handset serves as a camera. `null` is not said. */
export interface OldPhone {
  readonly mount: Mount | null;
  readonly screen: Screen | null;
  readonly lens: OldPhoneLens | null;
  /** In the warmest hour, °C. */
  readonly roomC: number | null;
  readonly way: OldPhoneWay | null;
  /** It streams again by itself after a restart. */
  readonly startsItself: boolean | null;
  /** Its MAC address stays the same on this network. */
  readonly hasFixedMac: boolean | null;
  /** It sends its sound. */
  readonly sendsSound: boolean | null;
  /** What plays its sound stands in the same room. */
  readonly isHeardNearby: boolean | null;
  /** Room for a recording that goes round, GB. */
  readonly loopGB: number | null;
  readonly loopHoursWanted: number | null;
}

export const UNSAID_OLD_PHONE: OldPhone = {
  mount: null,
  screen: null,
  lens: null,
  roomC: null,
  way: null,
  startsItself: null,
  hasFixedMac: null,
  sendsSound: null,
  isHeardNearby: null,
  loopGB: null,
  loopHoursWanted: null,
};

export const OLD_PHONE_RANGES = {
  roomC: HEAT_RANGES.roomC,
  loopGB: above0(10_000, 'GB'),
  loopHoursWanted: above0(10_000, 'h'),
} as const;
