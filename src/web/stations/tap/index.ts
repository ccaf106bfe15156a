import type { StationPage } from '../station-page.ts';

export const TAP: StationPage = { load: async () => (await import('./tap-page.tsx')).TapPage };
