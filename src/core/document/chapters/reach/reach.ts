import { PORT_RANGE } from '../../../net/port-range.ts';

/** What may be opened from one network into another: everything, what the taps of this site need, nothing. */
export const PASSAGES = ['all', 'listed', 'none'] as const;
export type Passage = (typeof PASSAGES)[number];

/** What stands for everything outside the house. */
export const INTERNET = 'internet';

/** One cell of the table of who may open connections into what; `from` and `to` are networks, or the internet. */
export interface ReachRow {
  readonly from: string;
  readonly to: string;
  readonly allowed: Passage;
}

/** A port of the router that leads inside. */
export interface Forward {
  readonly id: string;
  readonly outsidePort: number;
  readonly host: string;
  readonly port: number;
}

/** How somebody looks in from outside. */
export const LOOK_INS = ['none', 'tunnel', 'relay', 'forward'] as const;
export type RemoteAccess = (typeof LOOK_INS)[number];

/** Who may reach what, and what is open to the world. */
export interface Reach {
  readonly rows: readonly ReachRow[];
  readonly forwards: readonly Forward[];
  /** `null` while nobody said. */
  readonly lookIn: RemoteAccess | null;
  /** The router's own address outside, as it shows it; empty while nobody looked. */
  readonly outsideAddress: string;
  /** Whether devices may open ports of the router by themselves (UPnP); `null` while nobody looked. */
  readonly opensByItself: boolean | null;
}

export const UNKNOWN_REACH: Reach = {
  rows: [],
  forwards: [],
  lookIn: null,
  outsideAddress: '',
  opensByItself: null,
};

export const REACH_RANGES = { port: PORT_RANGE } as const;
