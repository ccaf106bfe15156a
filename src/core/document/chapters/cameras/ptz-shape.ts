import { TEXT_LIMITS } from '../../../base/limits.ts';
import { id, line, list, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { type HeadPreset, STEERING_LIMITS, STEERING_RANGES, type Steering, type Tour, type TourStop } from './ptz.ts';

const STILL = /^(?:|data:image\/jpeg;base64,[A-Za-z0-9+/=]*)$/;

export const steeringShape = shapeOf<Steering>()({
  presets: list(
    shapeOf<HeadPreset>()({
      id: id(),
      name: line(TEXT_LIMITS.label).min(1),
      token: text(STEERING_LIMITS.token).min(1),
      still: text(STEERING_LIMITS.stillChars).matches(STILL, '${path} must be a JPEG as a data URL'),
    }),
    STEERING_LIMITS.presets,
  ),
  tours: list(
    shapeOf<Tour>()({
      id: id(),
      name: line(TEXT_LIMITS.label).min(1),
      stops: list(
        shapeOf<TourStop>()({ presetId: id(), dwellS: within(STEERING_RANGES.dwellS) }),
        STEERING_LIMITS.stops,
      ),
    }),
    STEERING_LIMITS.tours,
  ),
});
