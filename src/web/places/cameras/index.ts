import type { Place } from '../place.ts';

export const ROUND: Place = {
  id: 'round',
  name: 'Cameras',
  path: '',
  key: 'r',
  load: async () => (await import('./cameras-page.tsx')).CamerasPage,
};
