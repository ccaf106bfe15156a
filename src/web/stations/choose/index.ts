import type { StationPage } from '../station-page.ts';

export const CHOOSE: StationPage = { load: async () => (await import('./choose-page.tsx')).ChoosePage };
