import { TEXT_LIMITS } from '../../../base/limits.ts';
import { wholes } from '../../../base/range.ts';
import { type FieldTable, figure, nameOf, notesOf, own, usualOf } from '../../../fields/field.ts';
import type { Network } from './network.ts';

/** A network as its router is set. Source of the range of VLANs: IEEE 802.1Q §9.6. */
export const NETWORK_FIELDS = {
  name: nameOf('Name', TEXT_LIMITS.name, { placeholder: 'House' }),
  cidr: own('Addresses', ''),
  gateway: own('Gateway (router)', null),
  pool: own('DHCP range', null),
  dns: own('DNS servers', []),
  ntp: own('Time server', null),
  vlan: figure('VLAN', wholes(1, 4094)),
  dhcpServers: figure('DHCP servers', wholes(0, 9), { hint: 'one is right; 0 where there is none' }),
  permit: notesOf('Who permits scanning it', TEXT_LIMITS.name, { placeholder: 'its owner, by name' }),
} as const satisfies FieldTable<Omit<Network, 'id'>>;

const { name: _name, cidr: _cidr, ...figures } = NETWORK_FIELDS;
/** A network of which only name and addresses are known. */
export const UNKNOWN_NETWORK = usualOf<Omit<Network, 'id' | 'name' | 'cidr'>>(figures);
