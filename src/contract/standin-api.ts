import { array, type InferType, lazy, number, object, string } from 'yup';
import { TEXT_LIMITS } from '../core/base/limits.ts';
import { CARD_RANGES, FILE_SYSTEMS } from '../core/firmware/memory-card.ts';
import { REHEARSAL_LIMITS, type RehearsedInput, type RehearsedState } from '../core/firmware/rehearsal.ts';

const CONTENTS = ['stock', 'new', 'spoilt'] as const;
/** More files are on no card that is to reflash something. */
const MOST_FILES = 20;

const cardSchema = object({
  bytes: number().strict().integer().min(CARD_RANGES.bytes.min).max(CARD_RANGES.bytes.max).required(),
  fileSystem: string().strict().oneOf(FILE_SYSTEMS).required(),
  partitionMiB: number().strict().integer().min(1).nullable().defined(),
  files: array(
    object({
      name: string().strict().defined().max(TEXT_LIMITS.fileName),
      content: string().strict().oneOf(CONTENTS).required(),
    })
      .noUnknown()
      .strict(),
  )
    .strict()
    .max(MOST_FILES)
    .required(),
})
  .noUnknown()
  .strict();

const atMs = number().strict().min(0).max(REHEARSAL_LIMITS.ms).required();
const bare = object({
  kind: string()
    .strict()
    .oneOf(['press', 'release', 'plug', 'unplug', 'wait'] as const)
    .required(),
  atMs,
})
  .noUnknown()
  .strict()
  .required();
const withCard = object({
  kind: string()
    .strict()
    .oneOf(['card'] as const)
    .required(),
  atMs,
  card: cardSchema.nullable().defined(),
})
  .noUnknown()
  .strict()
  .required();
const isCard = (value: unknown): boolean =>
  typeof value === 'object' && value !== null && 'kind' in value && value.kind === 'card';

/** What was done in a rehearsal, in its order. */
export const inputsSchema = array(lazy((value: unknown) => (isCard(value) ? withCard : bare)))
  .strict()
  .max(REHEARSAL_LIMITS.inputs);

/** POST /api/standin: something is done to a simulated camera, by its planned address. Only the demo has any. */
export const standinRequestSchema = object({
  host: string().strict().required().max(TEXT_LIMITS.host),
  /** What a rehearsal did with hands, a plug and a card. */
  inputs: inputsSchema.nullable().defined(),
  /** The account that is set at it. */
  account: object({
    user: string().strict().required().max(TEXT_LIMITS.user),
    secret: string().strict().required().max(TEXT_LIMITS.secret),
  })
    .noUnknown()
    .strict()
    .nullable()
    .defined(),
})
  .noUnknown()
  .strict()
  .required();

export interface StandinRequest {
  readonly host: string;
  readonly inputs: readonly RehearsedInput[] | null;
  readonly account: InferType<typeof standinRequestSchema>['account'];
}

export interface StandinAnswer {
  /** Each state of the camera, when something was rehearsed with it; empty when it cannot be reflashed. */
  readonly states: readonly RehearsedState[];
}
