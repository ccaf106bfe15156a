import type { Facts } from '../../findings/rule.ts';
import type { OnvifReading } from '../../onvif/reading.ts';
import type { Heard } from '../../onvif-client/hear-machine.ts';
import type { ProbeFacts } from '../../probe/probe-facts.ts';
import type { ProbeReport } from '../../probe/probe-types.ts';
import type { FoundWay, Reason } from '../../probe/reasons.ts';
import type { ProbeCause } from '../../rtsp/exchange-types.ts';
import type { SeenHost } from '../../scan/seen.ts';
import type { SessionsReport } from '../../sessions/sessions-types.ts';

/** What a probe of one stream taught: what its rules are judged by, whenever it is asked. */
export interface ProbePayload {
  readonly kind: 'probe';
  /** Subject of the stream. */
  readonly of: string;
  /** As it was probed, without an account. */
  readonly url: string;
  readonly verdict: ProbeReport['verdict'];
  readonly cause: ProbeCause | null;
  /** What was seen of the cause; empty where it did not fail. */
  readonly note: string;
  /** Why it failed, as experiments proved, and these experiments as sentences. */
  readonly reason: Reason | null;
  readonly proof: string;
  /** Where it works, as an experiment proved. */
  readonly found: FoundWay;
  readonly facts: Facts<ProbeFacts>;
}

/** What a device told by ONVIF. */
export interface ReadingPayload {
  readonly kind: 'reading';
  readonly of: string;
  readonly reading: OnvifReading;
}

/** How many sessions a camera played at once. */
export interface SessionsPayload {
  readonly kind: 'sessions';
  readonly of: string;
  /** Where it was counted: another address may be another camera. */
  readonly host: string;
  readonly report: SessionsReport;
}

/** What a sweep of a network saw; of many hosts several entries have one source. */
export interface SweepPayload {
  readonly kind: 'sweep';
  readonly of: string;
  /** As it was asked: from and to. */
  readonly range: string;
  /** It was not cut short: who was not seen was not there. */
  readonly isWhole: boolean;
  readonly hosts: readonly SeenHost[];
}

/** How listening to the events of a device went. */
export interface HeardPayload {
  readonly kind: 'heard';
  readonly of: string;
  readonly heard: Heard;
}

/** What an entry of the journal taught as a whole. `of` is the subject that it is known of. */
export type Payload = ProbePayload | ReadingPayload | SessionsPayload | SweepPayload | HeardPayload;
export type PayloadKind = Payload['kind'];
export type PayloadOf<K extends PayloadKind> = Extract<Payload, { readonly kind: K }>;
