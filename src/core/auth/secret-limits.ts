import { wholes } from '../base/range.ts';

/** What a device or a destination takes of a secret. What is not known is `null`, or an empty text. */
export interface SecretLimits {
  readonly longest: number | null;
  /** Signs that it cannot take, one after the other. */
  readonly refused: string;
}
export const UNKNOWN_SECRET_LIMITS: SecretLimits = { longest: null, refused: '' };

export const SECRET_LIMIT_RANGES = { longest: wholes(1, 1024, 'characters') } as const;
export const REFUSED_CHARS = 64;
