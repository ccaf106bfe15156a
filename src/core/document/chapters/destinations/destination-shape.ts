import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import { id, line, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { packsShape } from '../../../cost/packs-shape.ts';
import { secretLimitsShape } from '../secret-limits-shape.ts';
import {
  DESTINATION_KINDS,
  DESTINATION_RANGES,
  type Destination,
  PROTOCOLS,
  type Seats,
  type Storage,
} from './destination.ts';

export const destinationShape = shapeOf<Destination>()({
  id: id(),
  name: line(TEXT_LIMITS.name).min(1),
  kind: oneOf(DESTINATION_KINDS),
  host: line(TEXT_LIMITS.host),
  networkId: orNull(id()),
  codecs: list(text(TEXT_LIMITS.codec).required(), LIST_LIMITS.codecs),
  sounds: list(text(TEXT_LIMITS.codec).required(), LIST_LIMITS.codecs),
  protocols: list(oneOf(PROTOCOLS), PROTOCOLS.length),
  largest: orNull(
    shapeOf<NonNullable<Destination['largest']>>()({
      widthPx: within(DESTINATION_RANGES.sidePx),
      heightPx: within(DESTINATION_RANGES.sidePx),
    }),
  ),
  mostFps: orNull(within(DESTINATION_RANGES.mostFps)),
  mostKbps: orNull(within(DESTINATION_RANGES.mostKbps)),
  decodes: orNull(within(DESTINATION_RANGES.decodes)),
  seats: orNull(
    shapeOf<Seats>()({
      included: within(DESTINATION_RANGES.includedSeats),
      packs: packsShape(),
    }),
  ),
  storage: orNull(
    shapeOf<Storage>()({
      diskTB: within(DESTINATION_RANGES.diskTB),
      usableFraction: within(DESTINATION_RANGES.usableFraction),
      price: orNull(within(DESTINATION_RANGES.price)),
    }),
  ),
  retentionDays: orNull(within(DESTINATION_RANGES.retentionDays)),
  secretLimits: secretLimitsShape,
  position: orNull(pointShape),
});
