import type { ComponentType } from 'react';
import type { StationId } from '../../core/stations/registry.ts';

/** The page of each station, loaded when it is opened. Names and order are those of core's registry. */
export const STATION_PAGES: Readonly<Record<StationId, () => Promise<ComponentType>>> = {
  choose: async () => (await import('./choose/choose-page.tsx')).ChoosePage,
  power: async () => (await import('./power/power-page.tsx')).PowerPage,
  prepare: async () => (await import('./prepare/prepare-page.tsx')).PreparePage,
  address: async () => (await import('./address/address-page.tsx')).AddressPage,
  tap: async () => (await import('./tap/tap-page.tsx')).TapPage,
  'hand-over': async () => (await import('./hand-over/hand-over-page.tsx')).HandOverPage,
};
