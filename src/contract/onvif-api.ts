import { array, boolean, type InferType, lazy, number, object, string } from 'yup';
import { TEXT_LIMITS } from '../core/base/limits.ts';
import { PORT_RANGE } from '../core/net/port-range.ts';
import { MOST_TOKEN } from '../core/onvif/onvif-limits.ts';
import type { HearEvent } from '../core/onvif-client/hear-machine.ts';
import type { OnvifEvent } from '../core/onvif-client/onvif-machine.ts';
import { type NumberedOrder, type PtzEvent, RUN_MS, VELOCITY } from '../core/onvif-client/ptz-types.ts';
import { accountFields, hostField, leaveFields } from './login-fields.ts';

/** More doors than any device has. */
export const MOST_ALLOWED_DOORS = 8;

/** Whom to ask by ONVIF, and as whom. */
export const onvifTarget = {
  host: hostField(),
  port: number().strict().integer().min(PORT_RANGE.min).max(PORT_RANGE.max).required(),
  /** Over TLS. */
  tls: boolean().strict(),
  /** Other doors of the same host at which a person allowed the account. */
  alsoProve: array(
    object({
      port: number().strict().integer().min(PORT_RANGE.min).max(PORT_RANGE.max).required(),
      isTls: boolean().strict().required(),
    })
      .noUnknown()
      .strict(),
  ).max(MOST_ALLOWED_DOORS),
  ...accountFields,
  ...leaveFields,
};

/** POST /api/onvif: reads a device once. The same is the first message of a WebSocket at /api/steer; each further one is an order. */
export const onvifRequestSchema = object(onvifTarget).noUnknown().strict().required();
export type OnvifRequest = InferType<typeof onvifRequestSchema>;

/** Lines of the answer, as they happen. */
export type OnvifLine = OnvifEvent;

/** How long may be listened. */
export const HEAR_SECONDS = { min: 1, max: 600 } as const;

/** POST /api/hear: listens to the events of a device. */
export const hearRequestSchema = object({
  ...onvifTarget,
  seconds: number().strict().min(HEAR_SECONDS.min).max(HEAR_SECONDS.max).required(),
})
  .noUnknown()
  .strict()
  .required();
export type HearRequest = InferType<typeof hearRequestSchema>;
export type HearLine = HearEvent;

const share = () => number().strict().min(VELOCITY.min).max(VELOCITY.max).required();
const token = () => string().strict().max(MOST_TOKEN);
const velocity = object({ pan: share(), tilt: share(), zoom: share() }).noUnknown().strict().required();
// positions go as far as a device says that its spaces go
const place = () => number().strict().min(-1e6).max(1e6).required();
const position = object({
  pan: place(),
  tilt: place(),
  zoom: number().strict().min(-1e6).max(1e6).nullable().defined(),
})
  .noUnknown()
  .strict()
  .required();

const kindOf = <K extends string>(kind: K) =>
  string()
    .strict()
    .oneOf([kind] as const)
    .required();
const ORDERS = {
  run: object({ kind: kindOf('run'), velocity }),
  rest: object({ kind: kindOf('rest') }),
  runFor: object({
    kind: kindOf('runFor'),
    velocity,
    ms: number().strict().min(RUN_MS.min).max(RUN_MS.max).required(),
  }),
  tryTimeout: object({ kind: kindOf('tryTimeout'), velocity }),
  goTo: object({ kind: kindOf('goTo'), position }),
  turnBy: object({ kind: kindOf('turnBy'), by: position }),
  home: object({ kind: kindOf('home') }),
  goToPreset: object({ kind: kindOf('goToPreset'), token: token().required() }),
  keepPreset: object({
    kind: kindOf('keepPreset'),
    name: string().strict().max(TEXT_LIMITS.label).required(),
    token: token().nullable().defined(),
  }),
  removePreset: object({ kind: kindOf('removePreset'), token: token().required() }),
} as const;
const isOrderKind = (kind: unknown): kind is keyof typeof ORDERS =>
  typeof kind === 'string' && Object.hasOwn(ORDERS, kind);

/** What is asked of a head, by its kind. */
const orderSchema = lazy((value: unknown) => {
  const kind = typeof value === 'object' && value !== null && 'kind' in value ? value.kind : undefined;
  return (isOrderKind(kind) ? ORDERS[kind] : ORDERS.rest).noUnknown().strict().required();
});
const numberedOrderSchema = object({ number: number().strict().integer().min(0).required(), order: orderSchema })
  .noUnknown()
  .strict()
  .required();

/**
 * Reads an order from a page.
 * @throws ValidationError when it is none
 */
export const readOrder = (word: unknown): NumberedOrder =>
  numberedOrderSchema.validateSync(word, { strict: true }) as NumberedOrder; // the schema says the same, kind by kind

/** Messages of that WebSocket, to the page. */
export type PtzMessage = PtzEvent;
