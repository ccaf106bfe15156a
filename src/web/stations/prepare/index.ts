import type { StationPage } from '../station-page.ts';

export const PREPARE: StationPage = { load: async () => (await import('./prepare-page.tsx')).PreparePage };
