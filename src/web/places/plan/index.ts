import type { Place } from '../place.ts';

export const PLAN: Place = {
  id: 'plan',
  name: 'Plan',
  path: 'plan',
  load: async () => (await import('./plan-page.tsx')).PlanPage,
};
