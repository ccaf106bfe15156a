import { wholes } from '../../../base/range.ts';

/** Addresses that a server hands out, its two ends among them. */
export interface Pool {
  readonly from: string;
  readonly to: string;
}

export interface Network {
  readonly id: string;
  readonly name: string;
  readonly cidr: string;
  readonly gateway: string | null;
  /** `null` where none are handed out, or nobody looked. */
  readonly pool: Pool | null;
  readonly dns: readonly string[];
  /** Where its devices get the time; `null` when nobody said. */
  readonly ntp: string | null;
  readonly vlan: number | null;
  /** How many servers hand out addresses; `null` when nobody looked. */
  readonly dhcpServers: number | null;
  /** Who said that one may look through it: its owner, or who asked for the work. Empty while nobody did. */
  readonly permit: string;
}

/** A network of which only name and addresses are known. */
export const UNKNOWN_NETWORK = {
  gateway: null,
  pool: null,
  dns: [],
  ntp: null,
  vlan: null,
  dhcpServers: null,
  permit: '',
} as const satisfies Omit<Network, 'id' | 'name' | 'cidr'>;

/** What its numbers may be. Source of the VLAN: IEEE 802.1Q §9.6. */
export const NETWORK_RANGES = { vlan: wholes(1, 4094), dhcpServers: wholes(0, 9) } as const;
