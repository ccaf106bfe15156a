import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { id, list, oneOf, orNull, positive, real, shapeOf, text, whole } from '../../../base/schema-parts.ts';
import { type Costing, type CostLine, type CostOption, SCHOOLS } from './costing.ts';

const money = () => real(0, 1e9).required();
export const costingShape = shapeOf<Costing>()({
  currency: text(8).min(1),
  years: whole(1, 50).required(),
  energyPrice: real(0, 100).required(),
  priceRise: real(-0.5, 1).required(),
  options: list(
    shapeOf<CostOption>()({
      id: id(),
      name: text(TEXT_LIMITS.name).min(1),
      school: oneOf(SCHOOLS),
      lines: list(
        shapeOf<CostLine>()({
          label: text(TEXT_LIMITS.name).min(1),
          price: money(),
          count: whole(0, 100_000).required(),
          everyYears: orNull(positive(50)),
        }),
        LIST_LIMITS.costLines,
      ),
      includedSeats: whole(0, 10_000).required(),
      packs: list(
        shapeOf<CostOption['packs'][number]>()({ seats: whole(1, 10_000).required(), price: money() }),
        LIST_LIMITS.costPacks,
      ),
      subscriptionPerMonth: money(),
      loadW: real(0, 1e6).required(),
    }),
    LIST_LIMITS.costOptions,
  ),
});
