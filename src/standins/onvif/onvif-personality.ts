/** How a simulated head turns. */
export interface HeadPersonality {
  readonly panMin: number;
  readonly panMax: number;
  readonly tiltMin: number;
  readonly tiltMax: number;
  /** Longest focal length against the shortest; 1 has no zoom. */
  readonly zoomMax: number;
  readonly panDegPerS: number;
  readonly tiltDegPerS: number;
  /** It knows continuous moves alone, and does not tell where it looks. */
  readonly isTimedOnly?: true;
  /** How long it runs before anything moves, ms. */
  readonly deadMs?: number;
  /** It runs on when the time that it was given is over. */
  readonly ignoresTimeout?: true;
  /** One stop of so many gets lost. */
  readonly losesStopEvery?: number;
  /** Angle of view at its wide end. */
  readonly hfovDeg: number;
  readonly presets: readonly {
    readonly name: string;
    readonly pan: number;
    readonly tilt: number;
    readonly zoom: number;
  }[];
  readonly mostPresets: number;
}

/** How a simulated device speaks ONVIF: the healthy one, and the ways real ones fail. */
export interface OnvifPersonality {
  /** UUID of its endpoint. */
  readonly endpoint: string;
  readonly hardware: string;
  readonly location: string;
  /** An address of before, which it gives as its own in its answer to a discovery. */
  readonly staleAddress?: string;
  readonly make: string;
  readonly model: string;
  readonly firmware: string;
  readonly serial: string;
  /** How an account is proven; `either` takes both. */
  readonly login: 'token' | 'digest' | 'either' | 'none';
  /** Account of its own, where it keeps users apart from those of the stream. */
  readonly account?: { readonly user: string; readonly password: string };
  /** A token that is dated further off than this, by its own clock, is refused. */
  readonly tokenLifeS: number;
  /** It knows the older question for its services, and the first media service alone. */
  readonly isOld?: true;
  /** It gives addresses of a network behind it. */
  readonly innerHost?: string;
  /** It answers each request, and each question by discovery, twice. */
  readonly answersTwice?: true;
  /** Faults in the words of SOAP 1.1. */
  readonly saysSoap11?: true;
  /** How many of its pictures it shows by ONVIF; all unless said. */
  readonly sourcesShown?: number;
  readonly head?: HeadPersonality;
  /** Somebody walks through its picture, and it tells. */
  readonly walks?: { readonly everyMs: number; readonly forMs: number };
  /** Its subscriptions end long before they were to. */
  readonly endsSubscriptionsAfterMs?: number;
  /** It tells its subscriptions apart by an element in the header, under one address for all. */
  readonly tellsPullsByHeader?: true;
  readonly timeServer?: string;
  /** What lies on its own disk. */
  readonly recordings?: { readonly count: number; readonly days: number };
}
