import type { ComponentType } from 'react';

/** What a station shows; its name and its place in the order are those of core's registry. */
export interface StationPage {
  /** Loaded when it is opened. */
  readonly load: () => Promise<ComponentType>;
  /** What it judges is drawn on the plan: its verdict stands there too. */
  readonly isOnPlan?: true;
  /** Where a camera begins: one that is only planned, or one that hangs already. */
  readonly begins?: 'planned' | 'hanging';
  /** How its lines look in the logbook. */
  readonly logLook?: string;
}
