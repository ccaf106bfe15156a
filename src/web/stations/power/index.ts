import type { StationPage } from '../station-page.ts';

export const POWER: StationPage = { isOnPlan: true, load: async () => (await import('./power-page.tsx')).PowerPage };
