/** What a door turned out to be, as far as honest bytes tell. */
export type DoorKind = 'rtsp' | 'onvif' | 'http' | 'other';
export const DOOR_KINDS = ['rtsp', 'onvif', 'http', 'other'] as const satisfies readonly DoorKind[];

/** A port that somebody listens on. */
export interface SeenDoor {
  readonly port: number;
  readonly is: DoorKind;
  /** What it calls its software: the Server line. */
  readonly server: string;
  /** Of its web page. */
  readonly title: string;
  /** It took long to say a word, or said none. */
  readonly isSlow: boolean;
}

/** One address at which something is. */
export interface SeenHost {
  readonly host: string;
  /** MAC address, from the table of neighbours; empty where no table had it. */
  readonly mac: string;
  /** Identities of ONVIF endpoints that answered from here; more than one is odd. */
  readonly endpoints: readonly string[];
  readonly name: string;
  /** Model, as it says itself. */
  readonly hardware: string;
  readonly serial: string;
  readonly doors: readonly SeenDoor[];
  /** Other addresses that it gives as its own. */
  readonly alsoAt: readonly string[];
  /** It took every call that was made: what it says at each of them means little. */
  readonly answersAll: boolean;
}

export const SEEN_LIMITS = { doors: 32, endpoints: 4, alsoAt: 4, text: 80 } as const;

export const unknownHost = (host: string): SeenHost => ({
  host,
  mac: '',
  endpoints: [],
  name: '',
  hardware: '',
  serial: '',
  doors: [],
  alsoAt: [],
  answersAll: false,
});
