import type { LinkMedium } from '../../../core/document/chapters/links/link.ts';

export const MEDIUM_WORDS: Readonly<Record<LinkMedium, string>> = {
  'network-cable': 'network cable',
  pair: 'low-voltage pair',
  usb: 'USB cable',
  wifi: 'radio',
  powerline: 'powerline',
  fibre: 'fibre',
};
