import { type Handlers, sayValue, words } from '../../command-parts.ts';

/** `null` is as delivered; `said` names it for the log, so that the table of all need not be at hand. */
export type AssumptionCommand = {
  readonly kind: 'setAssumption';
  readonly id: string;
  readonly said: string;
  readonly value: number | null;
};

const AS_DELIVERED = 'as delivered';

export const ASSUMPTION_COMMANDS: Handlers<AssumptionCommand> = {
  setAssumption: (site, { id, said, value }) => {
    const { [id]: before, ...rest } = site.assumptions;
    return {
      site: { ...site, assumptions: value === null ? rest : { ...rest, [id]: value } },
      log: words('edit', 'site', `Assumed otherwise: ${said}`, {
        from: before === undefined ? AS_DELIVERED : sayValue(before),
        to: value === null ? AS_DELIVERED : sayValue(value),
      }),
    };
  },
};
