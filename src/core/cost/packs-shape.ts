import { LIST_LIMITS } from '../base/limits.ts';
import { list, shapeOf, within } from '../base/schema-parts.ts';
import { type LicencePack, PACK_RANGES } from './licence-packs.ts';

/** Packs of seats in a document, of a destination as of an option of cost. */
export const packsShape = () =>
  list(
    shapeOf<LicencePack>()({ seats: within(PACK_RANGES.seats), price: within(PACK_RANGES.price) }),
    LIST_LIMITS.costPacks,
  );
