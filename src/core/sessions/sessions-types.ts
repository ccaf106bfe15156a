import type { CameraDoing, CameraInput, CommonEffect, CommonInput } from '../machine/machine.ts';
import type { ProbeCause } from '../rtsp/exchange-types.ts';

/** One seat is one connection with one session; seats are counted from 1. */
export type SeatDoing =
  | { readonly kind: 'take'; readonly seat: number }
  | { readonly kind: 'on'; readonly seat: number; readonly doing: CameraDoing };
export type SeatInput = { readonly kind: 'of'; readonly seat: number; readonly input: CameraInput };

/** Why a seat was not had, as the camera said it. */
export interface SeatRefusal {
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
  readonly refusedWith: SeatRefusal | null;
  /** Packets a second of the first, alone and with the last one beside it. */
  readonly firstAlonePerS: number | null;
  readonly firstBesidePerS: number | null;
  /** `null` where there never were two. */
  readonly effectOnFirst: EffectOnFirst | null;
  /** Sessions to which the goodbye was answered, of those that were had. */
  readonly closed: number;
}

export type SessionsEvent =
  | { readonly kind: 'seat'; readonly seat: number; readonly refusal: SeatRefusal | null; readonly atMs: number }
  | { readonly kind: 'watching'; readonly atMs: number }
  | { readonly kind: 'counted'; readonly report: SessionsReport };

export type SessionsTimer = 'watch' | 'goodbye' | `answer ${number}` | `keepAlive ${number}` | `packets ${number}`;
export type SessionsInput = CommonInput<SessionsTimer> | SeatInput;
export type SessionsEffect = CommonEffect<SessionsTimer> | SeatDoing | SessionsEvent;

/** Nobody counts further: a recorder of a house has that many clients at the very most. */
export const MOST_SEATS = 32;
export const USUAL_SEATS = 8;

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
