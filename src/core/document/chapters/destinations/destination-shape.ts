import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import { id, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { DESTINATION_KINDS, DESTINATION_RANGES, type Destination } from './destination.ts';

export const destinationShape = shapeOf<Destination>()({
  id: id(),
  name: text(TEXT_LIMITS.name).min(1),
  kind: oneOf(DESTINATION_KINDS),
  codecs: list(text(TEXT_LIMITS.codec).required(), LIST_LIMITS.codecs),
  storage: orNull(
    shapeOf<NonNullable<Destination['storage']>>()({
      diskTB: within(DESTINATION_RANGES.diskTB),
      usableFraction: within(DESTINATION_RANGES.usableFraction),
    }),
  ),
  retentionDays: orNull(within(DESTINATION_RANGES.retentionDays)),
  position: orNull(pointShape),
});
