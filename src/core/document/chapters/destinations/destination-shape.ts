import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import { id, line, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { packsShape } from '../../../cost/packs-shape.ts';
import { shapeFrom } from '../../../fields/field-shapes.ts';
import { secretLimitsShape } from '../secret-limits-shape.ts';
import { DESTINATION_KINDS, type Destination, type Seats, type Storage } from './destination.ts';
import { DESTINATION_FIELDS, DESTINATION_RANGES } from './destination-fields.ts';

const codecs = () => list(text(TEXT_LIMITS.codec).required(), LIST_LIMITS.codecs);

export const destinationShape = shapeFrom<Destination>()(DESTINATION_FIELDS, {
  id: id(),
  name: line(TEXT_LIMITS.name).min(1),
  kind: oneOf(DESTINATION_KINDS),
  host: line(TEXT_LIMITS.host),
  networkId: orNull(id()),
  codecs: codecs(),
  sounds: codecs(),
  largest: orNull(
    shapeOf<NonNullable<Destination['largest']>>()({
      widthPx: within(DESTINATION_RANGES.sidePx),
      heightPx: within(DESTINATION_RANGES.sidePx),
    }),
  ),
  mostKbps: orNull(within(DESTINATION_RANGES.mostKbps)),
  seats: orNull(shapeOf<Seats>()({ included: within(DESTINATION_RANGES.includedSeats), packs: packsShape() })),
  storage: orNull(
    shapeOf<Storage>()({
      diskTB: within(DESTINATION_RANGES.diskTB),
      usableFraction: within(DESTINATION_RANGES.usableFraction),
      price: orNull(within(DESTINATION_RANGES.price)),
    }),
  ),
  secretLimits: secretLimitsShape,
  position: orNull(pointShape),
});
