import type { StationPage } from '../station-page.ts';

export const TAP: StationPage = {
  begins: 'hanging',
  logLook: 'text-verdigris',
  load: async () => (await import('./tap-page.tsx')).TapPage,
};
