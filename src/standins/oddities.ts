import type { SoundKind } from './sound-feed.ts';

/** An answer that is given instead of the right one. */
export interface OddAnswer {
  readonly status: number;
  readonly reason?: string;
  /** `{asked}` in a value is the URL that was asked for. */
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string;
  /** Written as it is, instead of all of the above. */
  readonly raw?: string;
}

/** How a simulated camera speaks otherwise than most: one trap each, as real ones set them. */
export interface Oddities {
  /** Its line is encrypted, or its RTSP comes inside HTTP alone. */
  readonly line?: 'self-signed' | 'expired' | 'tunnel';
  /** Answers by method, instead of the right ones. */
  readonly answers?: Readonly<Partial<Record<string, OddAnswer>>>;
  /** It answers an interleaved SETUP with 400, and says nothing more on that connection; UDP it grants. */
  readonly interleaved?: 'stalls';
  /** It closes the connection after each 401. */
  readonly closesAfter401?: true;
  /** It says nothing to this method. */
  readonly silentTo?: string;
  /** The only keep-alive that it takes, and offers; it refuses all others. `none` offers one and refuses it. */
  readonly keepAlive?: 'GET_PARAMETER' | 'SET_PARAMETER' | 'OPTIONS' | 'none';
  /** It asks back, each second, and ends whoever does not answer. */
  readonly asksBack?: true;
  /** How it writes the addresses of its tracks: whole, or to be put in place of the last part of the path. */
  readonly controls?: 'whole' | 'in-place';
  /** Its pictures’ time stamps run ahead of the clock of its sender reports by so many millionths. */
  readonly driftPpm?: number;
  /** So is its sound’s. */
  readonly soundDriftPpm?: number;
  /** It grants PLAY and sends nothing. */
  readonly isMute?: true;
  /** Proofs of Digest are refused, right ones too; it offers Basic beside. */
  readonly digest?: 'broken';
  /** Each challenge is out of date as soon as it is answered. */
  readonly nonces?: 'stale';
  /** From the refusal of that many logins on it refuses all of them. */
  readonly locksAfter?: number;
  /** What its description says of its picture instead. */
  readonly pictureLines?: readonly string[];
  readonly sound?: SoundKind;
  /** What its description says of the sound instead. */
  readonly soundLines?: readonly string[];
}
