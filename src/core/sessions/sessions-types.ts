import type { CameraEffect, CameraInput, CommonEffect, CommonInput } from '../machine/machine.ts';
import type { ProbeCause } from '../rtsp/exchange-types.ts';

/** Each session has a connection of its own; they are counted from 1. */
export type OneSessionEffect =
  | { readonly kind: 'openSession'; readonly session: number }
  | { readonly kind: 'toSession'; readonly session: number; readonly effect: CameraEffect };
export type OneSessionInput = { readonly kind: 'fromSession'; readonly session: number; readonly input: CameraInput };

/** Why a session was not had, as the camera said it. */
export interface SessionRefusal {
  readonly cause: ProbeCause;
  readonly status: number | null;
  readonly note: string;
}

/** What happened to the first session when there was one more than fit. */
export const EFFECTS_ON_FIRST = ['none', 'slower', 'stalled', 'ended'] as const;
export type EffectOnFirst = (typeof EFFECTS_ON_FIRST)[number];

export interface SessionsReport {
  /** As many play at once; `null` where none was refused up to `most`. */
  readonly limit: number | null;
  /** So many played at once. */
  readonly opened: number;
  /** Up to which it was asked. */
  readonly most: number;
  readonly refusedWith: SessionRefusal | null;
  /** Packets a second of the first, alone and with the last one beside it. */
  readonly firstAlonePerS: number | null;
  readonly firstBesidePerS: number | null;
  /** `null` where there never were two. */
  readonly effectOnFirst: EffectOnFirst | null;
  /** Sessions to which the TEARDOWN was answered, of those that were had. */
  readonly closed: number;
}

export type SessionsEvent =
  | {
      readonly kind: 'session';
      readonly session: number;
      readonly refusal: SessionRefusal | null;
      readonly atMs: number;
    }
  | { readonly kind: 'watching'; readonly atMs: number }
  | { readonly kind: 'counted'; readonly report: SessionsReport };

export type SessionsTimer = 'watch' | 'tearDown' | `answer ${number}` | `keepAlive ${number}` | `packets ${number}`;
export type SessionsInput = CommonInput<SessionsTimer> | OneSessionInput;
export type SessionsEffect = CommonEffect<SessionsTimer> | OneSessionEffect | SessionsEvent;

/** Nobody counts further: a recorder of a house has that many clients at the very most. */
export const MOST_SESSIONS = 32;
export const USUAL_SESSIONS = 8;

/** A URL that is none: nobody was asked. */
export const badTargetReport = (note: string, most: number): SessionsReport => ({
  limit: null,
  opened: 0,
  most,
  refusedWith: { cause: 'bad-url', status: null, note },
  firstAlonePerS: null,
  firstBesidePerS: null,
  effectOnFirst: null,
  closed: 0,
});
