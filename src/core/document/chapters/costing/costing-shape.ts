import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { id, line, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { packsShape } from '../../../cost/packs-shape.ts';
import { type CablePrices, COST_RANGES, type Costing, type CostLine, type CostOption, SCHOOLS } from './costing.ts';

const money = () => within(COST_RANGES.money);
export const costingShape = shapeOf<Costing>()({
  currency: text(8).min(1),
  years: within(COST_RANGES.years),
  energyPrice: within(COST_RANGES.energyPrice),
  priceRise: within(COST_RANGES.priceRise),
  perMetre: shapeOf<CablePrices>()({
    'network-cable': orNull(money()),
    pair: orNull(money()),
    usb: orNull(money()),
    fibre: orNull(money()),
  }),
  options: list(
    shapeOf<CostOption>()({
      id: id(),
      name: line(TEXT_LIMITS.name).min(1),
      school: oneOf(SCHOOLS),
      destinationId: orNull(id()),
      lines: list(
        shapeOf<CostLine>()({
          label: line(TEXT_LIMITS.name).min(1),
          price: money(),
          count: within(COST_RANGES.count),
          everyYears: orNull(within(COST_RANGES.everyYears)),
          of: orNull(text(TEXT_LIMITS.subject).min(1)),
        }),
        LIST_LIMITS.costLines,
      ),
      includedSeats: within(COST_RANGES.includedSeats),
      packs: packsShape(),
      subscriptionPerMonth: money(),
      loadW: within(COST_RANGES.loadW),
    }),
    LIST_LIMITS.costOptions,
  ),
});
