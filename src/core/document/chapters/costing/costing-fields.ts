import { TEXT_LIMITS } from '../../../base/limits.ts';
import { above0, between, wholes } from '../../../base/range.ts';
import { type FieldTable, figure, nameOf, needed, oneAmong, own } from '../../../fields/field.ts';
import { type CostLine, type CostOption, SCHOOLS } from './costing.ts';

/** What its numbers may be that stand in no table. */
export const COST_RANGES = {
  years: wholes(1, 50),
  energyPrice: between(0, 100),
  priceRise: between(-0.5, 1),
  money: between(0, 1e9),
} as const;

/** One thing that is bought. */
export const COST_LINE_FIELDS = {
  label: nameOf('What', TEXT_LIMITS.name, { missing: 'What is bought?' }),
  price: needed('Price', COST_RANGES.money),
  count: needed('How many', wholes(0, 100_000)),
  everyYears: figure('Every … years', above0(50, 'years'), { placeholder: 'lasts' }),
  of: own('Of the plan', null),
} as const satisfies FieldTable<CostLine>;

/** What belongs to one school. */
export const COST_OPTION_FIELDS = {
  name: nameOf('Name', TEXT_LIMITS.name),
  school: oneAmong('Approach', SCHOOLS, 'both'),
  destinationId: own('Licences counted at', null),
  lines: own('What is bought', []),
  includedSeats: needed('Licences included', wholes(0, 10_000)),
  packs: own('Packs', []),
  subscriptionPerMonth: needed('Subscription a month', COST_RANGES.money),
  loadW: needed('Power, W (without cameras)', between(0, 1e6, 'W')),
} as const satisfies FieldTable<Omit<CostOption, 'id'>>;
