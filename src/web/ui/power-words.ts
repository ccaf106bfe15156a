import type { PowerWay } from '../../core/base/ways.ts';

export const POWER_WAY_WORDS: Readonly<Record<PowerWay, string>> = {
  poe: 'network cable',
  passive: 'passive injector',
  dc: 'low voltage',
  usb: 'USB',
  solar: 'battery and panel',
  mains: 'mains',
};
