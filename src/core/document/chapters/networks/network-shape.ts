import { TEXT_LIMITS } from '../../../base/limits.ts';
import { id, orNull, shapeOf, text } from '../../../base/schema-parts.ts';
import type { Network } from './network.ts';

export const networkShape = shapeOf<Network>()({
  id: id(),
  name: text(TEXT_LIMITS.name).min(1),
  cidr: text(43).min(1),
  gateway: orNull(text(45)),
});
