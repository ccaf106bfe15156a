import { type InferType, number, object, string } from 'yup';
import { TEXT_LIMITS } from '../core/base/limits.ts';
import type { OnvifEvent } from '../core/talk/onvif-machine.ts';

/** Whom to ask by ONVIF, and as whom. */
export const onvifTarget = {
  host: string().strict().required().max(TEXT_LIMITS.host),
  port: number().strict().integer().min(1).max(65_535).required(),
  user: string().strict().nullable().defined().max(TEXT_LIMITS.user),
  secret: string().strict().nullable().defined().max(TEXT_LIMITS.secret),
};

/** POST /api/onvif: reads a device once. */
export const onvifRequestSchema = object(onvifTarget).noUnknown().strict().required();
export type OnvifRequest = InferType<typeof onvifRequestSchema>;

/** Lines of the answer, as they happen. */
export type OnvifLine = OnvifEvent;
