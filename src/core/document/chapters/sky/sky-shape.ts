import { array } from 'yup';
import { orNull, shapeOf, within } from '../../../base/schema-parts.ts';
import { SKY_RANGES, type Sky } from './sky.ts';

export const skyShape = shapeOf<Sky>()({
  latitudeDeg: orNull(within(SKY_RANGES.latitudeDeg)),
  clearness: orNull(array(within(SKY_RANGES.clearness)).strict().required().length(12)),
});
