import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ProbeEvent } from '../../contract/probe-api.ts';
import type { ProbeReport, ProbeStep } from '../../core/probe/probe-types.ts';
import type { ProbeStepName, TapeEntry } from '../../core/rtsp/exchange-types.ts';

interface Progress {
  readonly probeId: string;
  readonly startedAtMs: number;
  readonly steps: readonly ProbeStep[];
  readonly tape: readonly TapeEntry[];
  /** Experiments that began, after it had failed. */
  readonly trials: number;
}

/** One probe of one stream, as far as this page has seen it. */
export type ProbeRun =
  | ({
      readonly status: 'running';
      readonly open: readonly { readonly name: ProbeStepName; readonly startMs: number }[];
    } & Progress)
  | ({ readonly status: 'finished'; readonly report: ProbeReport } & Progress)
  | ({ readonly status: 'cancelled' } & Progress)
  | ({ readonly status: 'broken'; readonly message: string } & Progress);

/** Runs by stream id; the latest only. */
type ProbeState = Readonly<Record<string, ProbeRun>>;

const slice = createSlice({
  name: 'probe',
  initialState: (): ProbeState => ({}),
  reducers: {
    probeStarted: (
      state,
      action: PayloadAction<{ streamId: string; probeId: string; startedAtMs: number }>,
    ): ProbeState => {
      const { streamId, probeId, startedAtMs } = action.payload;
      return {
        ...state,
        [streamId]: { status: 'running', probeId, startedAtMs, open: [], steps: [], tape: [], trials: 0 },
      };
    },
    probeEventSeen: (state, action: PayloadAction<{ streamId: string; event: ProbeEvent }>): ProbeState => {
      const { streamId, event } = action.payload;
      const run = state[streamId];
      return run?.status === 'running' ? { ...state, [streamId]: advance(run, event) } : state;
    },
    probeCancelled: (state, action: PayloadAction<string>): ProbeState =>
      ended(state, action.payload, (run) => ({ ...run, status: 'cancelled' })),
    probeBroken: (state, action: PayloadAction<{ streamId: string; message: string }>): ProbeState =>
      ended(state, action.payload.streamId, (run) => ({ ...run, status: 'broken', message: action.payload.message })),
  },
});

type Running = Extract<ProbeRun, { status: 'running' }>;

function advance(run: Running, event: ProbeEvent): ProbeRun {
  switch (event.kind) {
    case 'stepBegan':
      return { ...run, open: [...run.open, { name: event.name, startMs: event.startMs }] };
    case 'step':
      return {
        ...run,
        open: run.open.filter(({ name }) => name !== event.step.name),
        steps: [...run.steps, event.step],
      };
    case 'tape':
      return { ...run, tape: [...run.tape, event.entry] };
    case 'trial':
      return { ...run, trials: run.trials + 1 };
    case 'report': {
      const { open: _, ...progress } = run;
      return { ...progress, status: 'finished', report: event.report, steps: event.report.steps };
    }
  }
}

function ended(state: ProbeState, streamId: string, end: (run: Progress) => ProbeRun): ProbeState {
  const run = state[streamId];
  if (run?.status !== 'running') return state;
  const { open: _, ...progress } = run;
  return { ...state, [streamId]: end(progress) };
}

export const { probeStarted, probeEventSeen, probeCancelled, probeBroken } = slice.actions;
export const probeReducer = slice.reducer;

export const selectRun = (root: { readonly probe: ProbeState }, streamId: string): ProbeRun | null =>
  root.probe[streamId] ?? null;
