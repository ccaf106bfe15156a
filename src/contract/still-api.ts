import { boolean, type InferType, number, object } from 'yup';
import { TEXT_LIMITS } from '../core/base/limits.ts';
import type { Still } from '../core/live/still-machine.ts';
import { PORT_RANGE } from '../core/net/port-range.ts';
import { accountFields, hostField, leaveFields, lineField } from './login-fields.ts';

/** POST /api/still: one picture of a device by HTTP, where its ONVIF says that it gives one. */
export const stillRequestSchema = object({
  host: hostField(),
  port: number().strict().integer().min(PORT_RANGE.min).max(PORT_RANGE.max).required(),
  /** Path and query. */
  path: lineField(TEXT_LIMITS.evidence).required(),
  /** Over TLS. */
  tls: boolean().strict(),
  ...accountFields,
  ...leaveFields,
})
  .noUnknown()
  .strict()
  .required();
export type StillRequest = InferType<typeof stillRequestSchema>;

/** Its one line. */
export type StillLine = Still;
