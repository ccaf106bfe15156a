import type { ComponentType } from 'react';

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

export const pathOfPlace = (siteId: string | undefined, { path }: Pick<Place, 'path'>): string =>
  path === '' ? `/site/${siteId}` : `/site/${siteId}/${path}`;
