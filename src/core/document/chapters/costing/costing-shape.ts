import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { id, list, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { packsShape } from '../../../cost/packs-shape.ts';
import { shapeFrom } from '../../../fields/field-shapes.ts';
import type { CablePrices, Costing, CostLine, CostOption } from './costing.ts';
import { COST_LINE_FIELDS, COST_OPTION_FIELDS, COST_RANGES } from './costing-fields.ts';

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
    shapeFrom<CostOption>()(COST_OPTION_FIELDS, {
      id: id(),
      destinationId: orNull(id()),
      lines: list(
        shapeFrom<CostLine>()(COST_LINE_FIELDS, { of: orNull(text(TEXT_LIMITS.subject).min(1)) }),
        LIST_LIMITS.costLines,
      ),
      packs: packsShape(),
    }),
    LIST_LIMITS.costOptions,
  ),
});
