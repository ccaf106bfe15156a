import { lazy } from 'yup';
import { assumptionOf, type ChangedAssumptions } from '../../../assumptions/assumptions.ts';
import { LIST_LIMITS } from '../../../base/limits.ts';
import { between } from '../../../base/range.ts';
import { id, shape, type Validator, within } from '../../../base/schema-parts.ts';

/** Of an assumption that is not known here. */
const UNKNOWN = between(-1e6, 1e6);

/** Names in a document are names of nothing else (schema-parts.ts); what is beyond the limit is unknown and refused. */
export const assumptionsShape = lazy((value: unknown) =>
  shape(
    Object.fromEntries(
      Object.keys(typeof value === 'object' && value !== null ? value : {})
        .filter((name) => id().isValidSync(name))
        .slice(0, LIST_LIMITS.assumptions)
        .map((name) => [name, within(assumptionOf(name) ?? UNKNOWN)]),
    ),
  ),
) as unknown as Validator<ChangedAssumptions>; // each name of it a number
