import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { flag, id, line, list, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { type Forward, LOOK_INS, PASSAGES, REACH_RANGES, type Reach, type ReachRow } from './reach.ts';

const end = () => text(TEXT_LIMITS.subject).min(1);

export const reachShape = shapeOf<Reach>()({
  rows: list(
    shapeOf<ReachRow>()({ from: end(), to: end(), allowed: oneOf(PASSAGES) }).required(),
    LIST_LIMITS.reachRows,
  ),
  forwards: list(
    shapeOf<Forward>()({
      id: id(),
      outsidePort: within(REACH_RANGES.port),
      host: line(TEXT_LIMITS.host),
      port: within(REACH_RANGES.port),
    }).required(),
    LIST_LIMITS.forwards,
  ),
  lookIn: orNull(oneOf(LOOK_INS)),
  outsideAddress: line(45),
  opensByItself: orNull(flag()),
});
