import type { StationPage } from '../station-page.ts';

export const HAND_OVER: StationPage = { load: async () => (await import('./hand-over-page.tsx')).HandOverPage };
