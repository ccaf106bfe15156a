import { array } from 'yup';
import { orNull, real, shapeOf } from '../../../base/schema-parts.ts';
import type { Sky } from './sky.ts';

export const skyShape = shapeOf<Sky>()({
  latitudeDeg: orNull(real(-90, 90)),
  clearness: array(real(0.05, 0.9).required()).strict().required().length(12),
});
