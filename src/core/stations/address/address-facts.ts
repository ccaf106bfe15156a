import type { Passage, RemoteAccess } from '../../document/chapters/reach/reach.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { MatchedCamera } from '../../evidence/seen-cameras.ts';
import type { Mend } from '../../findings/finding.ts';
import type { Keeping, PlanIssue } from '../../net/address-plan.ts';
import type { AddressKind } from '../../net/ipv4.ts';

type Mends = readonly Mend<SiteCommand>[];

/** Of the address itself, and how it stays. */
export interface PlaceFacts {
  /** As it was typed; absent while there is none. */
  readonly host: string;
  /** `name` is a host name, `odd` an address in another notation than four plain decimal numbers. */
  readonly notation: 'plain' | 'name' | 'odd' | 'ipv6';
  /** Absent where it is no IPv4 address. */
  readonly kind: AddressKind;
  /** Networks are described: without them nothing is said of where an address belongs. */
  readonly hasNetworks: boolean;
  /** Names and addresses of all networks, in words. */
  readonly networks: string;
  /** Name of the network that it lies in; absent where it lies in none. */
  readonly network: string;
  readonly isInNetwork: boolean;
  readonly misplaced: PlanIssue | null;
  /** Absent while its network’s gateway is not known. */
  readonly isGateway: boolean;
  /** Names of others that have the same address, and are not the same device. */
  readonly sharedWith: readonly string[];
  /** Two MAC addresses prove that they are two devices. */
  readonly isSharedForSure: boolean;
  /** Names of others at the same address and port, and with the same path. */
  readonly sameStreamAs: readonly string[];
  /** Absent while nobody decided. */
  readonly keeping: Keeping;
  /** Absent while nobody entered the DHCP range. */
  readonly isInPool: boolean;
  readonly pool: string;
  /** DHCP servers; absent while nobody looked. */
  readonly dhcpServers: number;
  readonly port: number;
  readonly cardPort: number;
}

/** Of what stays of it. */
export interface IdentityFacts {
  /** As it was typed; absent while nobody wrote one down. */
  readonly macText: string;
  /** Read; absent where it is none. */
  readonly mac: string;
  readonly isMacGood: boolean;
  readonly isLocalMac: boolean;
  readonly isGroupMac: boolean;
  /** Names of others with the same MAC address, and are not the same device. */
  readonly macSharedWith: readonly string[];
  readonly isOldPhone: boolean;
  readonly hasFixedMac: boolean;
}

/** Of the last look through its network. */
export interface SeenFacts {
  /** Absent where nobody looked, or not at its address. */
  readonly seen: MatchedCamera['state'];
  readonly seenAt: readonly string[];
  /** MAC address of what answers at its place. */
  readonly seenMac: string;
  /** It has another MAC address than the one on record, and one of the two is made up. */
  readonly seenPerhapsOther: boolean;
  readonly isSweepWhole: boolean;
  /** It gives an address as its own at which it was not heard. */
  readonly seenAlsoAt: readonly string[];
  /** Link-local addresses that answered in its network. */
  readonly linkLocalSeen: readonly string[];
  /** Taps that draw from the address of before, in words: “Loft store, Mill hub”. */
  readonly drawnBy: readonly string[];
}

/** One destination that draws it, and the way between both. */
export interface Way {
  readonly destination: string;
  /** Names of networks; `null` while it is not known. */
  readonly from: string | null;
  readonly to: string | null;
  readonly isSame: boolean;
  /** `null` while nobody said. */
  readonly allowed: Passage | null;
  readonly port: number;
  /** The destination takes it in by ONVIF as well, and looks for devices by multicast. */
  readonly looksByItself: boolean;
}

/** Of who may reach it, and of what it may reach. */
export interface ReachFacts {
  readonly ways: readonly Way[];
  /** Networks without a destination that draws it, from which everything may be opened to it. */
  readonly openFrom: readonly string[];
  /** What it may open towards the internet; absent while nobody said. */
  readonly internet: Passage;
  /** What of it stops without the internet, in words. */
  readonly losesWithoutInternet: readonly string[];
  /** Where its network has the time from; absent while nobody said. */
  readonly ntp: string;
  /** Whether its network may open a connection to that. */
  readonly ntpReach: 'reachable' | 'blocked' | 'unknown';
  /** Where that is: “outside”, “in House”. */
  readonly ntpPlace: string;
  /** Ports of the router that lead to it: “8554 to 554”. */
  readonly forwards: readonly string[];
  /** The same of those that lead to a destination that pulls it: “Loft store: 8443 to 443”. */
  readonly recorderForwards: readonly string[];
  /** Of the router’s address outside. */
  readonly outside: AddressKind;
  readonly lookIn: RemoteAccess;
  readonly opensByItself: boolean;
}

export interface AddressFacts extends PlaceFacts, IdentityFacts, SeenFacts, ReachFacts {}

/** What could be changed. */
export interface AddressOffers {
  /** The next address that is free, outside the pool. */
  readonly freeAddress: () => Mends;
  readonly reserve: () => Mends;
  readonly setOnDevice: () => Mends;
  /** Where it was seen. */
  readonly follow: () => Mends;
  /** What answers at its address is it. */
  readonly takeIdentity: () => Mends;
  readonly allowListed: () => Mends;
  readonly closeOthers: () => Mends;
  readonly cutOff: () => Mends;
  readonly dropForwards: () => Mends;
  readonly dropRecorderForwards: () => Mends;
  readonly gatewayTime: () => Mends;
  readonly cardPort: () => Mends;
}
