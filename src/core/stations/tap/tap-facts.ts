import type { Protocol } from '../../document/chapters/destinations/destination.ts';
import type { KnownHow } from '../../document/chapters/journal/entry.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { Mend } from '../../findings/finding.ts';
import type { AuthScheme } from '../../rtsp/exchange-types.ts';

type Mends = readonly Mend<SiteCommand>[];

/** What the figures of a destination ask of a stream that it draws. */
interface TakenFacts {
  readonly destination: string;
  readonly protocol: Protocol;
  readonly protocolsTaken: readonly Protocol[];
  /** What comes beside the picture, as it is described. */
  readonly soundCodec: string;
  readonly soundsTaken: readonly string[];
  /** Somebody is to look through it live, and wants to turn it. */
  readonly isSteeredLive: boolean;
  /** Of the stream, by plan or probe. */
  readonly widthPx: number;
  readonly heightPx: number;
  readonly mostWidthPx: number;
  readonly mostHeightPx: number;
  readonly streamFps: number;
  readonly mostFps: number;
  readonly rateKbps: number;
  readonly mostKbps: number;
  /** It shows the stream, or looks for something in it. */
  readonly isDecoded: boolean;
  /** Streams that the destination decodes by its taps, this one counted. */
  readonly decodesUsed: number;
  readonly decodes: number;
  readonly licencesUsed: number;
  readonly licencesIncluded: number;
  /** The cheapest packs for what is missing, in words; empty where none are sold. */
  readonly licencePacks: string;
}

/** What the rules about one tap may ask for. */
export interface TapFacts extends TakenFacts {
  readonly codec: string;
  /** Codecs the destination takes, as its figures say; or what it was seen to show. */
  readonly codecsTaken: readonly string[];
  readonly rateHow: KnownHow;
  readonly records: boolean;
  readonly daysFit: number;
  readonly daysWanted: number;
  readonly bytesPerDay: number;
  readonly usableBytes: number;
  /** Clients that the camera serves at once, by its model card. */
  readonly sessionsAllowed: number;
  /** Taps that draw from the camera, this one counted. */
  readonly sessionsUsed: number;
  /** The code by which the next was refused when they were counted. */
  readonly refusedWith: number;
  readonly authScheme: AuthScheme;
  readonly isEncrypted: boolean;
  readonly clockErrorS: number;
  /** What a clock may be off by, as the site assumes it. */
  readonly clockOkS: number;
}

/** What could be changed about one tap. */
export interface TapOffers {
  /** Other streams of the camera, in a codec that the destination takes. */
  readonly streamsTaken: () => Mends;
  /** Other streams of the camera that are no rows of whole pictures. */
  readonly savingStreams: () => Mends;
  /** What makes the days fit: another stream, part of the day, a larger disk, fewer days. */
  readonly levers: () => Mends;
}
