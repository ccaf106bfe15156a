import type { StationPage } from '../station-page.ts';

export const CHOOSE: StationPage = {
  isOnPlan: true,
  begins: 'planned',
  load: async () => (await import('./choose-page.tsx')).ChoosePage,
};
