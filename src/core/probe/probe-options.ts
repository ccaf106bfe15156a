import type { Credentials } from '../auth/authorization.ts';
import type { ProofGate } from '../auth/proof-gate.ts';
import type { DriveEffect, DriveInput } from '../machine/machine.ts';
import type { StreamUrl } from '../net/stream-url.ts';
import type { TransportChoice } from '../rtsp/client-types.ts';
import type { ProbeStepName, TapeEntry } from '../rtsp/exchange-types.ts';
import type { ProbeReport, ProbeStep } from './probe-types.ts';

export interface ProbeOptions {
  /** Its path may hold placeholders for the login (path-login.ts); they are filled on the wire alone. */
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  /** Asked before each proof of the account leaves. */
  readonly gate: ProofGate;
  /** The certificate that the camera is known by; `null` takes any. */
  readonly knownFingerprint: string | null;
  readonly loginBy?: 'any' | 'basic';
  readonly transport: TransportChoice;
  readonly sampleMs: number;
  /** Limit of each step, the sample apart. */
  readonly timeoutMs: number;
  /** False: stop after SETUP. */
  readonly media: boolean;
  readonly userAgent: string;
  readonly cnonce: () => string;
  /** Names us to the camera in receiver reports: 32 random bits (RFC 3550 §8.1). */
  readonly ownSsrc: number;
  /** Wall clock at `atMs` 0, ms since 1970: what a camera's clock is held against. */
  readonly startedAtUnixMs: number;
}

export type ProbeTimer = 'answer' | 'keepAlive' | 'media' | 'receiverReport';

export type ProbeInput =
  | DriveInput<ProbeTimer>
  /** The sample is long enough for whoever asked: what came so far is judged. */
  | { readonly kind: 'enough'; readonly atMs: number };

export type ProbeEffect =
  | DriveEffect<ProbeTimer>
  | { readonly kind: 'tape'; readonly entry: TapeEntry }
  | { readonly kind: 'stepBegan'; readonly name: ProbeStepName; readonly startMs: number }
  | { readonly kind: 'step'; readonly step: ProbeStep }
  | { readonly kind: 'report'; readonly report: ProbeReport };
