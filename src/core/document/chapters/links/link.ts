import type { Point } from '../../../base/plan-geometry.ts';
import type { PowerWay } from '../../../base/ways.ts';

export const LINK_MEDIA = ['network-cable', 'pair', 'usb', 'wifi', 'powerline', 'fibre'] as const;
export type LinkMedium = (typeof LINK_MEDIA)[number];

/** The wire that brings power in a way; none where nothing of the plan does. */
export const MEDIUM_OF_WAY: Readonly<Partial<Record<PowerWay, LinkMedium>>> = {
  poe: 'network-cable',
  passive: 'network-cable',
  dc: 'pair',
  usb: 'usb',
};

/** What joins two things. Ends are subjects: `gear:ID`, `camera:ID`, `destination:ID`; power flows from → to. */
export interface Link {
  readonly id: string;
  /** What stands on its label; may be empty. */
  readonly name: string;
  readonly from: string;
  readonly to: string;
  readonly medium: LinkMedium;
  /** As somebody typed it; a drawn route counts before it. `null` when nobody did: then the plan says it, if both ends stand there. */
  readonly lengthM: number | null;
  readonly route: readonly Point[] | null;
  /** Risers, slack and loops beside the drawn route. */
  readonly extraM: number;
  readonly areaMm2: number | null;
  readonly isCopperClad: boolean;
  /** Of the conductor in the worst case. */
  readonly conductorC: number;
  readonly leavesBuilding: boolean;
  readonly capacityMbps: number | null;
}
