import type { CommonEffect, CommonInput, HttpEffect, HttpInput } from '../machine/machine.ts';
import type { OnvifCause } from '../onvif/onvif-cause.ts';
import type { PtzNode, PtzPosition, PtzPreset, PtzVelocity } from '../onvif/services/ptz.ts';

/** What is asked of a head. Each has a number, so that whoever asked hears what came of it. */
export type PtzOrder =
  /** It runs as long as this is said again and again; a page that falls silent lets go. */
  | { readonly kind: 'run'; readonly velocity: PtzVelocity }
  | { readonly kind: 'rest' }
  /** It runs for just so long. */
  | { readonly kind: 'runFor'; readonly velocity: PtzVelocity; readonly ms: number }
  /** It runs with a time-out and no stop, to see whether it keeps to it. */
  | { readonly kind: 'tryTimeout'; readonly velocity: PtzVelocity }
  | { readonly kind: 'goTo'; readonly position: PtzPosition }
  | { readonly kind: 'turnBy'; readonly by: PtzPosition }
  | { readonly kind: 'home' }
  | { readonly kind: 'goToPreset'; readonly token: string }
  | { readonly kind: 'keepPreset'; readonly name: string; readonly token: string | null }
  | { readonly kind: 'removePreset'; readonly token: string };

export interface NumberedOrder {
  readonly number: number;
  readonly order: PtzOrder;
}

export type PtzTimer = 'tick' | 'farewell';
export type PtzInput =
  | CommonInput<PtzTimer>
  | HttpInput
  | { readonly kind: 'asked'; readonly asked: NumberedOrder; readonly atMs: number };

/** What a head can do, as it tells itself. */
export interface HeadAbility {
  readonly node: PtzNode;
  readonly profile: string;
  readonly tells: 'position' | 'moving' | 'nothing';
}

export type PtzEvent =
  | { readonly kind: 'ready'; readonly ability: HeadAbility; readonly presets: readonly PtzPreset[] }
  | { readonly kind: 'presets'; readonly presets: readonly PtzPreset[] }
  | { readonly kind: 'status'; readonly position: PtzPosition | null; readonly isMoving: boolean | null }
  /** What came of an order: when it is over, not when it was taken. */
  | {
      readonly kind: 'did';
      readonly number: number;
      readonly ok: boolean;
      readonly note: string;
      /** Of a run: how long it really was, from its first word to the stop. */
      readonly ranMs: number | null;
      readonly from: PtzPosition | null;
      readonly to: PtzPosition | null;
      /** Of a preset that was kept: its token. */
      readonly token: string | null;
      /** Of a try with a time-out: whether it stopped by itself; `null` where nothing tells. */
      readonly keptTimeout: boolean | null;
    }
  /** A stop had to be said again: it went on moving. */
  | { readonly kind: 'stopLost'; readonly times: number }
  /** It was told to stop for ten seconds, and was not seen to rest. */
  | { readonly kind: 'notStopped'; readonly times: number }
  | { readonly kind: 'ended'; readonly cause: OnvifCause | null; readonly note: string; readonly isStopped: boolean };

export type PtzEffect = CommonEffect<PtzTimer> | HttpEffect | PtzEvent;

/** How a velocity may be: a share of the top speed. */
export const VELOCITY = { min: -1, max: 1 } as const;
/** A run by time is bounded: nobody sits beside a head for longer. */
export const RUN_MS = { min: 50, max: 20_000 } as const;
