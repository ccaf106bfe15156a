import type { Point, Wall } from '../base/plan-geometry.ts';
import type { TapUse } from '../base/tap-uses.ts';
import type { PowerWay, RadioBand } from '../base/ways.ts';
import type { DetailLevel } from '../optics/detail-levels.ts';
import type { SunFeed } from '../power/sun-feed.ts';
import type { Sound } from './cards/model-card.ts';

/** What a picture is for, before any camera is chosen. */
export interface Need {
  readonly level: DetailLevel | null;
  readonly text: { readonly line: string; readonly charHeightMm: number } | null;
  /** Along the ground, to the far edge of what must be seen. */
  readonly distanceM: number;
  /** Of the zone at that distance. */
  readonly widthM: number;
  /** Where the zone begins; nothing may be unseen from here on. */
  readonly nearM: number;
  readonly atNight: boolean;
  readonly sound: Sound;
  readonly turns: boolean;
  readonly outdoors: boolean;
  readonly draws: readonly { readonly destinationId: string; readonly use: TapUse }[];
}

/** How a camera hangs. */
export interface Mounting {
  readonly heightM: number;
  readonly tiltDownDeg: number;
  /** On the plan, clockwise from the right. */
  readonly headingDeg: number;
  /** 1 is the wide end; `null` is as long as the zone stays in view. */
  readonly zoom: number | null;
}

/** A handset that hangs on its charger. */
export interface ChargeCare {
  readonly limitPercent: number | null;
  readonly batteryC: number | null;
  readonly isSwollen: boolean;
}

export interface Feed {
  readonly way: PowerWay;
  readonly sun: SunFeed | null;
  readonly charge: ChargeCare | null;
}

interface GearBase {
  readonly id: string;
  readonly name: string;
  readonly position: Point | null;
}
export type PseType = 1 | 2 | 3 | 4;
export type Gear =
  | (GearBase & {
      readonly kind: 'switch';
      readonly ports: number;
      /** Of these, those that feed; 0 is a switch without power. */
      readonly poePorts: number;
      readonly pseType: PseType;
      readonly budgetW: number;
      readonly pseVolts: number;
      /** `class` reserves what a class may take, `measured` what is taken. */
      readonly reserves: 'class' | 'measured';
      readonly uplinkMbps: number;
    })
  | (GearBase & {
      readonly kind: 'injector';
      /** Without negotiation, so the voltage is there whoever is plugged in. */
      readonly isPassive: boolean;
      readonly volts: number;
      readonly watts: number;
    })
  | (GearBase & {
      readonly kind: 'supply';
      readonly output: 'dc' | 'usb';
      readonly volts: number;
      readonly amps: number;
    })
  | (GearBase & {
      readonly kind: 'access-point';
      readonly band: RadioBand;
      readonly radio: string;
      readonly eirpDbm: number;
      /** Those of one band and channel share the air; `null` when nobody looked. */
      readonly channel: number | null;
      /** IEEE 802.3 class that it asks of the switch it hangs on; `null` when something else feeds it. */
      readonly poeClass: number | null;
    })
  | (GearBase & { readonly kind: 'powerline'; readonly syncMbps: number })
  | (GearBase & { readonly kind: 'router'; readonly uploadMbps: number | null });
export type GearKind = Gear['kind'];
export const GEAR_KINDS = [
  'switch',
  'injector',
  'supply',
  'access-point',
  'powerline',
  'router',
] as const satisfies readonly GearKind[];

export const LINK_MEDIA = ['network-cable', 'pair', 'usb', 'wifi', 'powerline', 'fibre'] as const;
export type LinkMedium = (typeof LINK_MEDIA)[number];

/** What joins two things. Ends are subjects: `gear:ID`, `camera:ID`, `destination:ID`; power flows from → to. */
export interface Link {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly medium: LinkMedium;
  /** Taped or guessed; a drawn route counts before it. */
  readonly lengthM: number;
  readonly route: readonly Point[] | null;
  /** Risers, slack and loops beside the drawn route. */
  readonly extraM: number;
  readonly areaMm2: number | null;
  readonly isCopperClad: boolean;
  /** Of the conductor in the worst case. */
  readonly conductorC: number;
  readonly leavesBuilding: boolean;
  readonly capacityMbps: number | null;
  /** Read at the place, where somebody did. */
  readonly rssiDbm: number | null;
}

/** A link of which only its ends and its kind are known: ten metres, warm, indoors, nothing measured. */
export const UNMEASURED_LINK = {
  lengthM: 10,
  route: null,
  extraM: 0,
  areaMm2: null,
  isCopperClad: false,
  conductorC: 40,
  leavesBuilding: false,
  capacityMbps: null,
  rssiDbm: null,
} as const satisfies Omit<Link, 'id' | 'from' | 'to' | 'medium'>;

/** An image under the plan, re-encoded when it was taken in. */
export interface PlanPicture {
  readonly name: string;
  readonly dataUrl: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly metresPerPx: number;
  /** False until two points and a length were given. */
  readonly isScaled: boolean;
}

export interface Plan {
  readonly widthM: number;
  readonly heightM: number;
  readonly picture: PlanPicture | null;
  readonly walls: readonly Wall[];
}

/** Where the site lies under the sun. */
export interface Sky {
  readonly latitudeDeg: number | null;
  /** Share of the light that passes the air, each month (K_T). */
  readonly clearness: readonly number[];
}

export const SCHOOLS = ['recorder-box', 'software', 'both'] as const;
export type School = (typeof SCHOOLS)[number];

export interface CostLine {
  readonly label: string;
  readonly price: number;
  readonly count: number;
  /** Bought again after so many years; `null` lasts. */
  readonly everyYears: number | null;
}
export interface CostOption {
  readonly id: string;
  readonly name: string;
  readonly school: School;
  readonly lines: readonly CostLine[];
  readonly includedSeats: number;
  readonly packs: readonly { readonly seats: number; readonly price: number }[];
  readonly subscriptionPerMonth: number;
  /** Of recorder, computer and switch, without the cameras. */
  readonly loadW: number;
}
export interface Costing {
  readonly currency: string;
  readonly years: number;
  readonly energyPrice: number;
  readonly priceRise: number;
  readonly options: readonly CostOption[];
}

/** Of a sheet's sides: a site is a house and its land. */
export const SHEET_LIMITS_M = { least: 2, most: 5000 } as const;
/** Whether a sheet of such sides can be drawn on; a slip of the finger makes a house as large as a town. */
export const isSheet = (...sidesM: readonly number[]): boolean =>
  sidesM.every((side) => side >= SHEET_LIMITS_M.least && side <= SHEET_LIMITS_M.most);

export const EMPTY_PLAN: Plan = { widthM: 40, heightM: 26, picture: null, walls: [] };
/** [A] A temperate year: dull winter, clear summer. */
const TEMPERATE_CLEARNESS = [0.33, 0.37, 0.41, 0.44, 0.46, 0.48, 0.49, 0.47, 0.44, 0.4, 0.35, 0.33] as const;
export const UNKNOWN_SKY: Sky = { latitudeDeg: null, clearness: TEMPERATE_CLEARNESS };
export const EMPTY_COSTING: Costing = { currency: '€', years: 5, energyPrice: 0.3, priceRise: 0.02, options: [] };
