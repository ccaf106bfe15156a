import type { ComponentType } from 'react';
import type { ServerInfo } from '../../contract/server-info.ts';

export interface Place {
  readonly id: string;
  readonly name: string;
  /** Behind the site's own path; empty for the first. */
  readonly path: string;
  /** The key that leads there from every view. */
  readonly key?: string;
  /** Not in the bar: one gets there from what it is about, or by the finder. */
  readonly isAside?: true;
  /** Where the network is the simulated one alone. */
  readonly isOfDemo?: true;
  readonly load: () => Promise<ComponentType>;
}

/** The places of a site, as the bar shows them. Router, bar, finder and keys are made from this list. */
export const PLACES: readonly Place[] = [
  {
    id: 'round',
    name: 'Round',
    path: '',
    key: 'r',
    load: async () => (await import('./round/round-page.tsx')).RoundPage,
  },
  { id: 'plan', name: 'Plan', path: 'plan', load: async () => (await import('./plan/plan-page.tsx')).PlanPage },
  {
    id: 'network',
    name: 'Network',
    path: 'network',
    load: async () => (await import('./network/network-page.tsx')).NetworkPage,
  },
  { id: 'cost', name: 'Cost', path: 'cost', load: async () => (await import('./cost/cost-page.tsx')).CostPage },
  {
    id: 'logbook',
    name: 'Logbook',
    path: 'logbook',
    key: 'l',
    load: async () => (await import('./logbook/logbook-page.tsx')).LogbookPage,
  },
  {
    id: 'faults',
    name: 'Faults',
    path: 'faults',
    isOfDemo: true,
    load: async () => (await import('./faults/faults-page.tsx')).FaultsPage,
  },
  {
    id: 'sheets',
    name: 'All sheets',
    path: 'sheets',
    isAside: true,
    load: async () => (await import('./sheets/sheets-page.tsx')).SheetsPage,
  },
];

/** Those of this network; of the bar, those that do not stand aside. On a phone it has room for the site’s own. */
export const placesOf = (network: ServerInfo['network'] | null): readonly Place[] =>
  PLACES.filter(({ isOfDemo }) => !isOfDemo || network === 'simulated');
export const barPlaces = (network: ServerInfo['network'] | null): readonly Place[] =>
  placesOf(network).filter(({ isAside }) => !isAside);

export const pathOfPlace = (siteId: string | undefined, { path }: Pick<Place, 'path'>): string =>
  path === '' ? `/site/${siteId}` : `/site/${siteId}/${path}`;
