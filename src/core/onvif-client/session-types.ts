import type { Credentials } from '../auth/authorization.ts';
import type { ProofGate } from '../auth/proof-gate.ts';
import type { HttpRequest } from '../http/http-message.ts';
import type { OnvifCause } from '../onvif/onvif-cause.ts';
import type { OtherDoor, ServicePlace } from '../onvif/service-place.ts';
import type { Outcome } from './onvif-script.ts';

export interface SessionOptions {
  readonly target: ServicePlace;
  readonly credentials: Credentials | null;
  /** Asked before each proof of the account leaves. */
  readonly gate: ProofGate;
  /** Doors of the same host that a person allowed the account at, beside the one that is called. */
  readonly alsoProve: readonly OtherDoor[];
  /** The certificate that the device is known by, SHA-256 with colons: to another one nothing is sent. */
  readonly knownFingerprint: string | null;
  readonly userAgent: string;
  /** Fresh bytes for each token: a device may remember those that it saw. */
  readonly nonce: () => Uint8Array;
  readonly cnonce: () => string;
  /** Local time at a moment of the machine. */
  readonly unixMs: (atMs: number) => number;
}

/** How the account is proven. */
export type ProofWay = 'none' | 'token' | 'digest';

/** What an answer makes of a call: another request, or its end. */
export type Judged =
  | {
      readonly kind: 'again';
      readonly request: HttpRequest;
      readonly isFresh: boolean;
      /** Sent again it proves nothing a second time. */
      readonly mayRepeat: boolean;
    }
  | { readonly kind: 'over'; readonly outcome: Outcome<unknown> };

export const failed = (cause: OnvifCause, note: string): Judged => ({
  kind: 'over',
  outcome: { ok: false, cause, note },
});
