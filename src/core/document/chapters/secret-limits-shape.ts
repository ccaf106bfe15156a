import { REFUSED_CHARS, SECRET_LIMIT_RANGES, type SecretLimits } from '../../auth/secret-limits.ts';
import { line, orNull, shapeOf, within } from '../../base/schema-parts.ts';

export const secretLimitsShape = shapeOf<SecretLimits>()({
  longest: orNull(within(SECRET_LIMIT_RANGES.longest)),
  refused: line(REFUSED_CHARS),
});
