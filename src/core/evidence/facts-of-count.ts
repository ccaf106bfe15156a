import type { FactValue } from '../document/chapters/journal/entry.ts';
import type { QuantityName } from '../document/chapters/journal/quantities.ts';
import type { SessionsReport } from '../sessions/sessions-types.ts';

/** Said where no session was refused: an older limit is not left standing. */
const NOT_REACHED = 'not reached';
const NONE = 'none';

/** What is kept of a count, as facts of the camera; what is not known is kept as such, over what was known before. */
export function factsOfCount(report: SessionsReport, host: string): readonly (readonly [QuantityName, FactValue])[] {
  const { limit, opened, most, refusedWith, firstAlonePerS, firstBesidePerS, effectOnFirst, closed } = report;
  return [
    ['sessions.host', host],
    ['sessions.limit', limit ?? NOT_REACHED],
    ['sessions.played', opened],
    ['sessions.most', most],
    ['sessions.cause', refusedWith?.cause ?? NONE],
    ['sessions.status', refusedWith?.status ?? NONE],
    ['sessions.note', refusedWith?.note ?? NONE],
    ['sessions.alonePerS', firstAlonePerS ?? NONE],
    ['sessions.besidePerS', firstBesidePerS ?? NONE],
    ['sessions.effect', effectOnFirst ?? 'not seen'],
    ['sessions.closed', closed],
  ];
}
