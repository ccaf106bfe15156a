import { atMost, type Verdict } from '../../base/verdict.ts';
import type { LicencePack, LicencePurchase } from '../../cost/licence-packs.ts';
import { energyOfYear, totalCost } from '../../cost/total-cost.ts';
import type { Costing, CostOption } from '../../document/chapters/costing/costing.ts';
import type { Site } from '../../document/site.ts';
import { licencesUsed } from '../../site/licences.ts';

const MONTHS = 12;

/** Seats as one destination counts them. */
export interface LicenceGround {
  readonly used: number;
  readonly included: number;
  readonly packs: readonly LicencePack[];
}

/** What all options have in common: how many seats the site takes, what its cameras draw. */
export interface CostGround {
  /** Of all cameras, for an option that names no destination. */
  readonly licencesNeeded: number;
  /** By destination, for those that do. */
  readonly licencesAt: ReadonlyMap<string, LicenceGround>;
  readonly camerasW: number;
}

/**
 * From the document: seats of every camera's model, and the mean of day and night of those whose watts are known. What a
 * panel feeds costs no energy but in the months in which it is charged from the mains.
 */
export function costGround(site: Site): CostGround {
  const models = new Map(site.models.map((model) => [model.id, model]));
  let licencesNeeded = 0;
  let camerasW = 0;
  for (const { modelId, feed } of site.cameras) {
    const model = modelId === null ? undefined : models.get(modelId);
    licencesNeeded += model?.seats ?? 1;
    const { dayW = null, nightW = null } = model?.power ?? {};
    if (dayW === null) continue;
    const bought = feed?.way === 'solar' ? (feed.sun?.mainsMonths.length ?? 0) / MONTHS : 1;
    camerasW += ((dayW + (nightW ?? dayW)) / 2) * bought;
  }
  const licencesAt = new Map(
    site.destinations.map(({ id, seats }): [string, LicenceGround] => [
      id,
      { used: licencesUsed(site, id), included: seats?.included ?? 0, packs: seats?.packs ?? [] },
    ]),
  );
  return { licencesNeeded, licencesAt, camerasW };
}

/** The seats that an option counts: those of its destination, else its own for every camera. */
export function licencesOf(option: CostOption, { licencesAt, licencesNeeded }: CostGround): LicenceGround {
  const at = option.destinationId === null ? undefined : licencesAt.get(option.destinationId);
  return at ?? { used: licencesNeeded, included: option.includedSeats, packs: option.packs };
}

export interface OptionCost {
  readonly option: CostOption;
  readonly ground: LicenceGround;
  /** `null` when no packs are sold that seat every camera. */
  readonly seats: LicencePurchase | null;
  readonly upfront: number;
  /** Bought again within the years: disks, cards, batteries. */
  readonly replacements: number;
  readonly subscription: number;
  readonly energy: number;
  readonly total: number;
  /** All that was spent up to the end of each month; the first is the day it is bought. */
  readonly spentByMonth: readonly number[];
}

/** What an option costs over the years, and month by month. Prices of subscription and energy rise yearly. */
export function optionCost(option: CostOption, costing: Costing, ground: CostGround): OptionCost {
  const { years, energyPrice, priceRise } = costing;
  const bought = option.lines.reduce((sum, { price, count }) => sum + price * count, 0);
  const loadW = option.loadW + ground.camerasW;
  const counted = licencesOf(option, ground);
  const base = totalCost({
    years,
    hardware: bought,
    cameras: counted.used,
    included: counted.included,
    packs: counted.packs,
    subscriptionPerMonth: option.subscriptionPerMonth,
    loadW,
    energyPrice,
    priceRise,
  });
  const spentByMonth: number[] = [base.upfront];
  const energyPerMonth = energyOfYear(loadW, energyPrice).costPerYear / MONTHS;
  let replacements = 0;
  for (let month = 1; month <= years * MONTHS; month++) {
    const rise = (1 + priceRise) ** Math.floor((month - 1) / MONTHS);
    let spent = (spentByMonth.at(-1) ?? 0) + (option.subscriptionPerMonth + energyPerMonth) * rise;
    for (const { price, count, everyYears } of option.lines)
      if (everyYears !== null && month < years * MONTHS && isDue(month, everyYears)) {
        spent += price * count;
        replacements += price * count;
      }
    spentByMonth.push(spent);
  }
  return {
    option,
    ground: counted,
    seats: base.seats,
    upfront: base.upfront,
    replacements,
    subscription: base.subscription,
    energy: base.energy,
    total: base.total + replacements,
    spentByMonth,
  };
}

/** Whether something that lasts so many years is bought again in this month. */
function isDue(month: number, everyYears: number): boolean {
  const everyMonths = Math.max(1, Math.round(everyYears * MONTHS));
  return month % everyMonths === 0;
}

/** The first month from which `a` has cost no more than `b` up to the end; `null` when there is none. */
export function breakEvenOf(a: OptionCost, b: OptionCost): number | null {
  let since: number | null = null;
  for (const [month, spent] of a.spentByMonth.entries()) {
    const other = b.spentByMonth[month] ?? Number.POSITIVE_INFINITY;
    if (spent > other * (1 + 1e-12)) since = null;
    else since ??= month;
  }
  return since;
}

/** [A] Paid back within half the planned life is good, within all of it just so. */
export const judgeBreakEven = (month: number | null, years: number): Verdict =>
  month === null ? 'will-not-work' : atMost(month, (years * MONTHS) / 2, years * MONTHS);
