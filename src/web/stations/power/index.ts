import type { StationPage } from '../station-page.ts';

export const POWER: StationPage = { load: async () => (await import('./power-page.tsx')).PowerPage };
