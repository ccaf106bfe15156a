export const POWER_WAYS = ['poe', 'passive', 'dc', 'usb', 'solar', 'mains'] as const;
export type PowerWay = (typeof POWER_WAYS)[number];
export const POWER_WAY_WORDS: Readonly<Record<PowerWay, string>> = {
  poe: 'network cable',
  passive: 'passive injector',
  dc: 'low voltage',
  usb: 'USB',
  solar: 'battery and solar panel',
  mains: 'mains',
};

export const RADIO_BANDS = ['2.4', '5', 'sub-GHz'] as const;
export type RadioBand = (typeof RADIO_BANDS)[number];
