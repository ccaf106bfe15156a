import type { Place } from '../place.ts';

export const NETWORK: Place = {
  id: 'network',
  name: 'Network',
  path: 'network',
  load: async () => (await import('./network-page.tsx')).NetworkPage,
};
