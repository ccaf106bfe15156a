import { TEXT_LIMITS } from '../../../base/limits.ts';
import { wholes } from '../../../base/range.ts';
import { type FieldTable, figure, nameOf, notesOf, own, usualOf } from '../../../fields/field.ts';
import type { Network } from './network.ts';

/** A network as its router is set. Source of the range of VLANs: IEEE 802.1Q §9.6. */
export const NETWORK_FIELDS = {
  name: nameOf('Name', TEXT_LIMITS.name, { placeholder: 'House' }),
  cidr: own('Addresses', ''),
  gateway: own('Gateway, the router', null),
  pool: own('Handed out', null),
  dns: own('Name servers', []),
  ntp: own('Time from', null),
  vlan: figure('VLAN', wholes(1, 4094)),
  dhcpServers: figure('Servers that hand out', wholes(0, 9), { hint: 'one is right; 0 where nobody does' }),
  permit: notesOf('Who said that you may look through it', TEXT_LIMITS.name, { placeholder: 'its owner, by name' }),
} as const satisfies FieldTable<Omit<Network, 'id'>>;

const { name: _name, cidr: _cidr, ...figures } = NETWORK_FIELDS;
/** A network of which only name and addresses are known. */
export const UNKNOWN_NETWORK = usualOf<Omit<Network, 'id' | 'name' | 'cidr'>>(figures);
