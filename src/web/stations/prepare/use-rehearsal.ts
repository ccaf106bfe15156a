import { useState } from 'react';
import type { ReflashGuide } from '../../../core/firmware/guide.ts';
import { beginRun, type Direction, type Run, type Signal, step } from '../../../core/firmware/procedure.ts';
import type { RehearsedInput } from '../../../core/firmware/rehearsal.ts';
import {
  type Firmware,
  type SimCamera,
  type SimInput,
  simAt,
  simCamera,
  simStep,
} from '../../../core/firmware/simulated-camera.ts';
import type { ToldStep } from '../../../core/stations/prepare/index.ts';
import { useClock } from './use-clock.ts';

interface Rehearsed {
  readonly run: Run;
  readonly steps: readonly ToldStep[];
  readonly camera: SimCamera;
  readonly inputs: readonly RehearsedInput[];
  /** Where its time stood, and when that was. */
  readonly virtualMs: number;
  readonly realMs: number;
  readonly pace: number;
}

const begun = (direction: Direction, firmware: Firmware, realMs: number, pace: number): Rehearsed => {
  const run = beginRun(direction, 0);
  return {
    run,
    steps: [{ atMs: 0, from: null, to: run.phase, signal: null }],
    camera: simCamera(firmware),
    inputs: [],
    virtualMs: 0,
    realMs,
    pace,
  };
};

const timeOf = ({ virtualMs, realMs, pace }: Rehearsed, nowMs: number): number =>
  virtualMs + Math.max(0, nowMs - realMs) * pace;

/** A rehearsal: the procedure as it is told, and a simulated camera as it behaves, both by a time of their own. */
export function useRehearsal(guide: ReflashGuide) {
  const clock = useClock();
  const [state, setState] = useState(() => begun('onward', 'stock', Date.now(), 1));
  const now = timeOf(state, Math.max(clock, state.realMs));
  const camera = simAt(state.camera, guide, now);
  return {
    now,
    camera,
    run: state.run,
    steps: state.steps,
    inputs: state.inputs,
    pace: state.pace,
    setPace: (pace: number): void =>
      setState((before) => ({ ...before, virtualMs: timeOf(before, Date.now()), realMs: Date.now(), pace })),
    tell: (signal: Signal): void =>
      setState((before) => {
        const atMs = timeOf(before, Date.now());
        const run = step(before.run, signal, atMs);
        if (run === before.run) return before;
        return { ...before, run, steps: [...before.steps, { atMs, from: before.run.phase, to: run.phase, signal }] };
      }),
    act: (input: SimInput): void =>
      setState((before) => {
        const atMs = timeOf(before, Date.now());
        return {
          ...before,
          camera: simStep(before.camera, input, guide, atMs),
          inputs: [...before.inputs, { ...input, atMs: Math.round(atMs) }],
        };
      }),
    /** Begins anew with the camera as it then is, or as it was delivered. */
    begin: (direction: Direction, firmware: Firmware): void =>
      setState((before) => begun(direction, firmware, Date.now(), before.pace)),
  };
}
export type Rehearsal = ReturnType<typeof useRehearsal>;
