import type { Place } from '../place.ts';

export const FAULTS: Place = {
  id: 'faults',
  name: 'Faults',
  path: 'faults',
  isOfDemo: true,
  load: async () => (await import('./faults-page.tsx')).FaultsPage,
};
