import { array, type InferType, object, string } from 'yup';
import { LIST_LIMITS, TEXT_LIMITS } from '../core/base/limits.ts';

const reservationSchema = object({
  mac: string().strict().required().max(TEXT_LIMITS.mac),
  ip: string().strict().required().max(45),
  name: string().strict().defined().max(TEXT_LIMITS.name),
})
  .noUnknown()
  .strict()
  .required();

/** POST /api/router: the simulated router of the demo. Only the demo has one. */
export const routerRequestSchema = object({
  /** Reservations that take the place of all it has; `null` leaves them. */
  reserve: array(reservationSchema).strict().max(LIST_LIMITS.cameras).nullable().defined(),
  act: string()
    .strict()
    .oneOf(['look', 'cutPower'] as const)
    .required(),
})
  .noUnknown()
  .strict()
  .required();
export type RouterRequest = InferType<typeof routerRequestSchema>;

export interface RouterAnswer {
  readonly reservations: readonly { readonly mac: string; readonly ip: string; readonly name: string }[];
  /** Its leases, in the manner of a dnsmasq lease file. */
  readonly leases: string;
}
