import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { FactValue } from '../../document/chapters/journal/entry.ts';
import { cameraSubject } from '../../document/subject.ts';
import { type EvidenceIndex, factsOf } from '../../evidence/evidence-index.ts';
import { beginRun, type Direction, MOVES, type Phase, type Run, type Signal, step } from '../../firmware/procedure.ts';

const BEGINS: ReadonlyMap<FactValue, Direction> = new Map([
  ['begin:onward', 'onward'],
  ['begin:back', 'back'],
]);

/** What was told, in its order. */
export interface ToldStep {
  readonly atMs: number;
  readonly from: Phase | null;
  readonly to: Phase;
  readonly signal: Signal | null;
}

export interface RunTold {
  readonly run: Run;
  readonly steps: readonly ToldStep[];
}

const isSignal = (phase: Phase, value: FactValue): value is Signal =>
  typeof value === 'string' && Object.hasOwn(MOVES[phase], value);

/**
 * Where the reflash of a camera stands, told again from the journal: closing the page in the middle of a wait loses
 * nothing, and time went on. `null` where none was begun.
 */
export function runOf(index: EvidenceIndex, camera: Camera): RunTold | null {
  const told = factsOf(index, cameraSubject(camera.id), 'reflash.step');
  const from = told.findLastIndex(({ value }) => BEGINS.has(value));
  const begun = told[from];
  const direction = begun && BEGINS.get(begun.value);
  if (!begun || !direction) return null;
  const beganMs = Date.parse(begun.takenAt);
  let run = beginRun(direction, beganMs);
  const steps: ToldStep[] = [{ atMs: beganMs, from: null, to: run.phase, signal: null }];
  for (const { value, takenAt } of told.slice(from + 1)) {
    if (!isSignal(run.phase, value)) continue; // of a table that knows less, or two tabs at once
    const atMs = Date.parse(takenAt);
    const next = step(run, value, atMs);
    steps.push({ atMs, from: run.phase, to: next.phase, signal: value });
    run = next;
  }
  return { run, steps };
}
