import type { Credentials } from '../auth/authorization.ts';
import type { StreamUrl } from '../net/stream-url.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import type { TransportChoice } from '../rtsp/client-types.ts';

/** How a port takes a call. */
export type CallAnswer = 'open' | 'refused' | 'silent';

/** What a device told by ONVIF, as far as it matters here. */
export interface OnvifTold {
  /** It speaks ONVIF there. */
  readonly isThere: boolean;
  /** Its clock minus ours. */
  readonly skewS: number | null;
  /** Whether the account was accepted; `null` where that was not tried. */
  readonly isAdmitted: boolean | null;
  readonly paths: readonly string[];
}

/** One thing to try, as data: the driver carries it out. */
export type Trial =
  | { readonly kind: 'calls'; readonly ports: readonly number[] }
  | {
      readonly kind: 'probe';
      readonly url: StreamUrl;
      readonly credentials: Credentials | null;
      readonly transport: TransportChoice;
      /** With pictures for a moment; else up to the session. */
      readonly media: boolean;
      /** How long they are looked at. */
      readonly sampleS: number;
      readonly loginBy: 'any' | 'basic';
    }
  | { readonly kind: 'neighbour' }
  | { readonly kind: 'onvif'; readonly port: number; readonly credentials: Credentials | null };

export type TrialAnswer =
  | { readonly kind: 'calls'; readonly answers: ReadonlyMap<number, CallAnswer> }
  | { readonly kind: 'probe'; readonly report: ProbeReport }
  | { readonly kind: 'neighbour'; readonly of: Neighbour }
  | { readonly kind: 'onvif'; readonly told: OnvifTold }
  /** The time for experiments is over. */
  | { readonly kind: 'late' };

/** What this computer’s own tables say of an address. */
export interface Neighbour {
  /** Its MAC address, where it answered lately on the same link. */
  readonly mac: string | null;
  /** It lies in a network that this computer is in: only there its silence says that nobody has it; `null` where that is not known. */
  readonly isOnLink: boolean | null;
}

export type Trials<T> = Generator<Trial, T, TrialAnswer>;

/** Experiments end where they are when their time is over. */
export class OutOfTime extends Error {
  override readonly name = 'OutOfTime';
}

function* answerOf<K extends Exclude<TrialAnswer['kind'], 'late'>>(
  kind: K,
  trial: Trial & { readonly kind: K },
): Trials<Extract<TrialAnswer, { kind: K }>> {
  const answer = yield trial;
  if (answer.kind === 'late') throw new OutOfTime();
  if (answer.kind !== kind) throw new Error(`asked for ${kind}, told ${answer.kind}`);
  return answer as Extract<TrialAnswer, { kind: K }>; // its kind was compared
}

export function* callPorts(ports: readonly number[]): Trials<ReadonlyMap<number, CallAnswer>> {
  return (yield* answerOf('calls', { kind: 'calls', ports })).answers;
}
export function* probeOnce(trial: Omit<Extract<Trial, { kind: 'probe' }>, 'kind'>): Trials<ProbeReport> {
  return (yield* answerOf('probe', { kind: 'probe', ...trial })).report;
}
export function* neighbour(): Trials<Neighbour> {
  return (yield* answerOf('neighbour', { kind: 'neighbour' })).of;
}
export function* askOnvif(port: number, credentials: Credentials | null): Trials<OnvifTold> {
  return (yield* answerOf('onvif', { kind: 'onvif', port, credentials })).told;
}
