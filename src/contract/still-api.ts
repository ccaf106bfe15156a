import { type InferType, number, object, string } from 'yup';
import { TEXT_LIMITS } from '../core/base/limits.ts';

/** POST /api/still: one picture of a device by HTTP, where its ONVIF says that it gives one. */
export const stillRequestSchema = object({
  host: string().strict().required().max(TEXT_LIMITS.host),
  port: number().strict().integer().min(1).max(65_535).required(),
  /** Path and query. */
  path: string().strict().required().max(TEXT_LIMITS.evidence),
  user: string().strict().nullable().defined().max(TEXT_LIMITS.user),
  secret: string().strict().nullable().defined().max(TEXT_LIMITS.secret),
})
  .noUnknown()
  .strict()
  .required();
export type StillRequest = InferType<typeof stillRequestSchema>;

/** Its one line. */
export type StillLine =
  | { readonly kind: 'still'; readonly jpeg: string }
  | { readonly kind: 'none'; readonly note: string };
