/** Addresses of a DHCP range, its two ends among them. */
export interface Pool {
  readonly from: string;
  readonly to: string;
}

export interface Network {
  readonly id: string;
  readonly name: string;
  readonly cidr: string;
  readonly gateway: string | null;
  /** `null` where no DHCP server has one, or nobody looked. */
  readonly pool: Pool | null;
  readonly dns: readonly string[];
  /** Where its devices get the time; `null` when nobody said. */
  readonly ntp: string | null;
  readonly vlan: number | null;
  /** How many DHCP servers there are; `null` when nobody looked. */
  readonly dhcpServers: number | null;
  /** Who said that one may look through it: its owner, or who asked for the work. Empty while nobody did. */
  readonly permit: string;
}
