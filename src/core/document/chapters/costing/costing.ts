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
