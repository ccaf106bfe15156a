import type { StationPage } from '../station-page.ts';

export const ADDRESS: StationPage = { load: async () => (await import('./address-page.tsx')).AddressPage };
