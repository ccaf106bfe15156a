import { cheapestPacks, type LicencePack, type LicencePurchase } from './licence-packs.ts';

/** Watts that run all year as kWh: W × 24 h × 365 ÷ 1000. */
const KWH_PER_WATT_YEAR = 8.76;

export interface CostInput {
  readonly years: number;
  readonly hardware: number;
  readonly cameras: number;
  readonly included: number;
  readonly packs: readonly LicencePack[];
  readonly subscriptionPerMonth: number;
  readonly loadW: number;
  readonly energyPrice: number;
  /** Of subscription and energy, each year; 0.02 is two in a hundred. */
  readonly priceRise: number;
}

export interface TotalCost {
  /** `null` when no combination of packs seats every camera. */
  readonly seats: LicencePurchase | null;
  readonly upfront: number;
  readonly subscription: number;
  readonly energyKWh: number;
  readonly energy: number;
  readonly total: number;
}

export const energyOfYear = (
  loadW: number,
  pricePerKWh: number,
): { readonly kWhPerYear: number; readonly costPerYear: number } => ({
  kWhPerYear: loadW * KWH_PER_WATT_YEAR,
  costPerYear: loadW * KWH_PER_WATT_YEAR * pricePerKWh,
});

/** Years counted by what they cost against the first, as prices rise: Σ (1 + rise)^k. */
export const yearsAsPricesRise = (years: number, priceRise: number): number =>
  Array.from({ length: years }, (_, k) => (1 + priceRise) ** k).reduce((sum, rise) => sum + rise, 0);

/**
 * What an option costs over its years: hardware and seats at once, subscription and energy as their prices rise.
 * @throws RangeError unless the years are a whole number from 1 to 50
 */
export function totalCost(input: CostInput): TotalCost {
  const { years, priceRise } = input;
  if (!(Number.isInteger(years) && years >= 1 && years <= 50))
    throw new RangeError(`years: expected a whole number from 1 to 50, got ${years}`);
  const rises = yearsAsPricesRise(years, priceRise);
  const seats = cheapestPacks(input.cameras, input.included, input.packs);
  const upfront = input.hardware + (seats?.cost ?? 0);
  const subscription = 12 * input.subscriptionPerMonth * rises;
  const { kWhPerYear, costPerYear } = energyOfYear(input.loadW, input.energyPrice);
  const energy = costPerYear * rises;
  return {
    seats,
    upfront,
    subscription,
    energyKWh: kWhPerYear * years,
    energy,
    total: upfront + subscription + energy,
  };
}

export interface RunningCost {
  readonly upfront: number;
  readonly perMonth: number;
}

/** The first whole month in which `a` has cost no more than `b`; `null` when there is none up to the horizon. */
export function breakEvenMonth(a: RunningCost, b: RunningCost, horizonMonths: number): number | null {
  for (let month = 0; month <= horizonMonths; month++)
    if (a.upfront + month * a.perMonth <= (b.upfront + month * b.perMonth) * (1 + 1e-12)) return month;
  return null;
}
