import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import { id, list, oneOf, orNull, positive, shapeOf, share, text } from '../../../base/schema-parts.ts';
import { DESTINATION_KINDS, type Destination } from './destination.ts';

export const destinationShape = shapeOf<Destination>()({
  id: id(),
  name: text(TEXT_LIMITS.name).min(1),
  kind: oneOf(DESTINATION_KINDS),
  codecs: list(text(TEXT_LIMITS.codec).required(), LIST_LIMITS.codecs),
  storage: orNull(
    shapeOf<NonNullable<Destination['storage']>>()({ diskTB: positive(10_000).required(), usableFraction: share() }),
  ),
  retentionDays: orNull(positive(36_500)),
  position: orNull(pointShape),
});
