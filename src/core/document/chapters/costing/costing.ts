import { above0, between, wholes } from '../../../base/range.ts';
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

export const EMPTY_COSTING: Costing = { currency: '€', years: 5, energyPrice: 0.3, priceRise: 0.02, options: [] };

/** What its numbers may be. */
export const COST_RANGES = {
  years: wholes(1, 50),
  energyPrice: between(0, 100),
  priceRise: between(-0.5, 1),
  money: between(0, 1e9),
  count: wholes(0, 100_000),
  everyYears: above0(50, 'years'),
  includedSeats: wholes(0, 10_000),
  packSeats: wholes(1, 10_000),
  loadW: between(0, 1e6, 'W'),
} as const;
