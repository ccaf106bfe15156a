import type { StationPage } from '../station-page.ts';

export const HAND_OVER: StationPage = {
  logLook: 'text-brass',
  load: async () => (await import('./hand-over-page.tsx')).HandOverPage,
};
