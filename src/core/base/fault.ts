/** The part of the world a fault comes from; the first half of every fault code. */
export type FaultStage =
  | 'url'
  | 'dns'
  | 'tcp'
  | 'rtsp'
  | 'auth'
  | 'sdp'
  | 'rtp'
  | 'video'
  | 'site'
  | 'cards'
  | 'picture'
  | 'range'
  | 'lease'
  | 'onvif'
  | 'http'
  | 'json';

/**
 * Something that came from outside and is wrong: a device's bytes, a file, a typed URL. A bug of ours is an Error, never
 * a Fault. `message` says what was expected, what came and where, and holds no credential.
 */
export interface Fault<C extends `${FaultStage}.${string}` = `${FaultStage}.${string}`> {
  readonly code: C;
  readonly message: string;
  readonly detail: Readonly<Record<string, string | number>>;
}

export const fault = <C extends `${FaultStage}.${string}`>(
  code: C,
  message: string,
  detail: Readonly<Record<string, string | number>> = {},
): Fault<C> => ({ code, message, detail });
