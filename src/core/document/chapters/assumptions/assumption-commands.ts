import { assumptionOf } from '../../../assumptions/assumptions.ts';
import { type Handlers, sayValue, words } from '../../command-parts.ts';

/** `null` is as delivered. */
export type AssumptionCommand = { readonly kind: 'setAssumption'; readonly id: string; readonly value: number | null };

const AS_DELIVERED = 'as delivered';

export const ASSUMPTION_COMMANDS: Handlers<AssumptionCommand> = {
  setAssumption: (site, { id, value }) => {
    const { [id]: before, ...rest } = site.assumptions;
    return {
      site: { ...site, assumptions: value === null ? rest : { ...rest, [id]: value } },
      log: words('edit', 'site', `Assumed otherwise: ${assumptionOf(id)?.label ?? id}`, {
        from: before === undefined ? AS_DELIVERED : sayValue(before),
        to: value === null ? AS_DELIVERED : sayValue(value),
      }),
    };
  },
};
