import type { ComponentType } from 'react';

/** What a station shows; its name and its place in the order are those of core's registry. */
export interface StationPage {
  /** Loaded when it is opened. */
  readonly load: () => Promise<ComponentType>;
}
