import type { LicencePack } from '../../../cost/licence-packs.ts';

export const SCHOOLS = ['recorder-box', 'software', 'both'] as const;
export type School = (typeof SCHOOLS)[number];

export interface CostLine {
  readonly label: string;
  readonly price: number;
  readonly count: number;
  /** Bought again after so many years; `null` lasts. */
  readonly everyYears: number | null;
  /** What of the plan it counts, so that it is counted once: `model:ID`, `gear:ID`, `cable:network-cable` …; `null` is written by hand. */
  readonly of: string | null;
}

/** What a metre of a medium costs; `null` when not known. */
export interface CablePrices {
  readonly 'network-cable': number | null;
  readonly pair: number | null;
  readonly usb: number | null;
  readonly fibre: number | null;
}
export interface CostOption {
  readonly id: string;
  readonly name: string;
  readonly school: School;
  /** The destination whose seats it counts; `null` counts those below. */
  readonly destinationId: string | null;
  readonly lines: readonly CostLine[];
  readonly includedSeats: number;
  readonly packs: readonly LicencePack[];
  readonly subscriptionPerMonth: number;
  /** Of recorder, computer and switch, without the cameras. */
  readonly loadW: number;
}
export interface Costing {
  readonly currency: string;
  readonly years: number;
  readonly energyPrice: number;
  readonly priceRise: number;
  readonly perMetre: CablePrices;
  readonly options: readonly CostOption[];
}

export const NO_CABLE_PRICES: CablePrices = { 'network-cable': null, pair: null, usb: null, fibre: null };

export const EMPTY_COSTING: Costing = {
  currency: '€',
  years: 5,
  energyPrice: 0.3,
  priceRise: 0.02,
  perMetre: NO_CABLE_PRICES,
  options: [],
};
