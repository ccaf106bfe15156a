import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { id, line, list, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { NETWORK_RANGES, type Network, type Pool } from './network.ts';

const address = () => line(45);

export const networkShape = shapeOf<Network>()({
  id: id(),
  name: line(TEXT_LIMITS.name).min(1),
  cidr: line(43).min(1),
  gateway: orNull(address()),
  pool: orNull(shapeOf<Pool>()({ from: address(), to: address() })),
  dns: list(address().required(), LIST_LIMITS.nameServers),
  ntp: orNull(line(TEXT_LIMITS.host)),
  vlan: orNull(within(NETWORK_RANGES.vlan)),
  dhcpServers: orNull(within(NETWORK_RANGES.dhcpServers)),
  permit: text(TEXT_LIMITS.name),
});
