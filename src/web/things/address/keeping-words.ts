import type { Keeping } from '../../../core/net/address-plan.ts';

export const KEEPING_WORDS: Readonly<Record<Keeping, string>> = {
  reservation: 'reserved at the router',
  static: 'set on the device',
  dynamic: 'left to chance',
};
