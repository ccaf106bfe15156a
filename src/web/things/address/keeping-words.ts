import type { Keeping } from '../../../core/net/address-plan.ts';

export const KEEPING_WORDS: Readonly<Record<Keeping, string>> = {
  reservation: 'DHCP reservation',
  static: 'static on the device',
  dynamic: 'DHCP without a reservation',
};
