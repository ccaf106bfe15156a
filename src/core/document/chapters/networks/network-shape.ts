import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { id, line, list, orNull, shapeOf } from '../../../base/schema-parts.ts';
import { shapeFrom } from '../../../fields/field-shapes.ts';
import type { Network, Pool } from './network.ts';
import { NETWORK_FIELDS } from './network-fields.ts';

const address = () => line(45);

export const networkShape = shapeFrom<Network>()(NETWORK_FIELDS, {
  id: id(),
  cidr: line(43).min(1),
  gateway: orNull(address()),
  pool: orNull(shapeOf<Pool>()({ from: address(), to: address() })),
  dns: list(address().required(), LIST_LIMITS.nameServers),
  ntp: orNull(line(TEXT_LIMITS.host)),
});
