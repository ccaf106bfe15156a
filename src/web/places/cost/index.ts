import type { Place } from '../place.ts';

export const COST: Place = {
  id: 'cost',
  name: 'Cost',
  path: 'cost',
  load: async () => (await import('./cost-page.tsx')).CostPage,
};
