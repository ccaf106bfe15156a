import type { Place } from '../place.ts';

export const LOGBOOK: Place = {
  id: 'logbook',
  name: 'Logbook',
  path: 'logbook',
  key: 'l',
  load: async () => (await import('./logbook-page.tsx')).LogbookPage,
};
