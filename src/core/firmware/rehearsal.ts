import type { ReflashGuide } from './guide.ts';
import { type LedPattern, sayLed } from './led.ts';
import {
  type Firmware,
  ledOf,
  listens,
  type SimCamera,
  type SimInput,
  type SimPhase,
  simAt,
  simCamera,
  simStep,
} from './simulated-camera.ts';

/** Something that was done, counted from the beginning. `wait` only lets time pass. */
export type RehearsedInput = (SimInput | { readonly kind: 'wait' }) & { readonly atMs: number };

export interface RehearsedState {
  readonly atMs: number;
  readonly did: RehearsedInput['kind'] | 'began';
  readonly phase: SimPhase;
  readonly firmware: Firmware;
  readonly lamp: string;
  readonly listens: boolean;
  readonly why: string;
}

/** [A] More is no rehearsal. */
export const REHEARSAL_LIMITS = { inputs: 100, ms: 24 * 3600 * 1000 } as const;

const told = (camera: SimCamera, guide: ReflashGuide, atMs: number, did: RehearsedState['did']): RehearsedState => {
  const sign: LedPattern = ledOf(camera, guide);
  return {
    atMs,
    did,
    phase: camera.phase,
    firmware: camera.firmware,
    lamp: sayLed(sign),
    listens: listens(camera),
    why: camera.why,
  };
};

/**
 * Plays a whole rehearsal from its beginning: what was done, and what the camera then was.
 * @param inputs in the order of their times; a time that goes backwards counts as the one before
 */
export function rehearse(
  guide: ReflashGuide,
  firmware: Firmware,
  inputs: readonly RehearsedInput[],
): { readonly camera: SimCamera; readonly states: readonly RehearsedState[] } {
  let camera = simCamera(firmware);
  let nowMs = 0;
  const states = [told(camera, guide, 0, 'began')];
  for (const input of inputs) {
    nowMs = Math.max(nowMs, input.atMs);
    camera = input.kind === 'wait' ? simAt(camera, guide, nowMs) : simStep(camera, input, guide, nowMs);
    states.push(told(camera, guide, nowMs, input.kind));
  }
  return { camera, states };
}
