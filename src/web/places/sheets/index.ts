import type { Place } from '../place.ts';

export const SHEETS: Place = {
  id: 'sheets',
  name: 'All sheets',
  path: 'sheets',
  isAside: true,
  load: async () => (await import('./sheets-page.tsx')).SheetsPage,
};
