import { lazy, number } from 'yup';
import type { ChangedAssumptions } from '../../../assumptions/assumptions.ts';
import { LIST_LIMITS } from '../../../base/limits.ts';
import { type Asked, id, shape } from '../../../base/schema-parts.ts';

/** Names in a document are names of nothing else (schema-parts.ts); what is beyond the limit is unknown and refused. */
export const assumptionsShape = lazy((value: unknown) =>
  shape(
    Object.fromEntries(
      Object.keys(typeof value === 'object' && value !== null ? value : {})
        .filter((name) => id().isValidSync(name))
        .slice(0, LIST_LIMITS.assumptions)
        .map((name) => [name, number().strict().min(-1e6).max(1e6).required()]),
    ),
  ),
) as unknown as Asked<ChangedAssumptions>; // each name of it a number
