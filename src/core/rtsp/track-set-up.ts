import type { SdpSession } from '../sdp/sdp-types.ts';
import type { ClientFailure } from './client-failures.ts';
import type { TransportChoice } from './client-types.ts';
import type { ProbeCause } from './exchange-types.ts';
import { type NextTrack, TrackPlan } from './track-plan.ts';

/** What no other transport would change: who asks, for what, and for how many. */
const SAME_OVER_UDP: ReadonlySet<ProbeCause> = new Set([
  'auth-required',
  'auth-failed',
  'auth-unsupported',
  'login-held',
  'forbidden',
  'not-found',
  'too-many-sessions',
]);
/** It understood what was asked for: the same connection does for the next question. */
const UNSUPPORTED_TRANSPORT = 461;

/** What to do next: ask for a track, open a pair of ports for it, begin to play, or end here. */
export type SetUpMove =
  | NextTrack
  | { readonly kind: 'play' }
  /** Over UDP, on a new connection: what refused an interleaved SETUP may read nothing more on this one. */
  | { readonly kind: 'afresh'; readonly because: string }
  | { readonly kind: 'giveUp'; readonly failure: ClientFailure };

/** SETUP of one track after the other, and what is tried where one is refused. Source: RFC 2326 §10.4, §12.39. */
export class TrackSetUp {
  readonly plan: TrackPlan;

  /** @param remark takes what was tried, a sentence each */
  constructor(
    session: SdpSession,
    transport: TransportChoice,
    private readonly hide: (text: string) => string,
    private readonly remark: (sentence: string) => void,
  ) {
    this.plan = new TrackPlan(session, transport);
  }

  next(): SetUpMove {
    return this.plan.next() ?? { kind: 'play' };
  }

  granted(transportHeader: string): SetUpMove {
    if (this.plan.grant(transportHeader)) return this.next();
    const note = `${this.plan.transport.toUpperCase()} was requested, the camera answered “${transportHeader.slice(0, 80)}”.`;
    return { kind: 'giveUp', failure: { cause: 'transport-refused', note } };
  }

  /** @param failure what the refusal means where nothing else is left to try */
  refused(status: number | undefined, failure: ClientFailure): SetUpMove {
    const other = failure.cause === 'not-found' ? this.plan.tryOtherControl() : null;
    if (other) {
      this.remark(`No track at this address; trying ${this.hide(other)}.`);
      return this.next();
    }
    // 461 says so; other servers answer an interleaved SETUP that they do not take with 400, 406 or 501
    const mayHelp = !SAME_OVER_UDP.has(failure.cause);
    const because = `the camera refused TCP with ${status}`;
    if (mayHelp && this.plan.fallBackToUdp(because)) {
      const isSameLine = status === UNSUPPORTED_TRANSPORT;
      this.remark(`TCP was refused with ${status}; requesting UDP${isSameLine ? '' : ', on a new connection'}.`);
      return isSameLine ? this.next() : { kind: 'afresh', because };
    }
    const place = this.plan.refuse();
    if (this.plan.tracks.length === 0) return { kind: 'giveUp', failure };
    this.remark(`Track ${place} was refused; the stream goes on without it.`);
    return this.next();
  }
}
