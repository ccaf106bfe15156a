import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** A round of probes over many cameras, as far as it got. */
export interface ProbeRound {
  readonly status: 'none' | 'running' | 'ended';
  readonly total: number;
  readonly done: number;
  /** Cameras that are dialled now. */
  readonly at: readonly string[];
  /** Names of cameras whose secret is not in reach: they were not dialled. */
  readonly leftOut: readonly string[];
  readonly isCancelled: boolean;
}

const NONE: ProbeRound = { status: 'none', total: 0, done: 0, at: [], leftOut: [], isCancelled: false };

const slice = createSlice({
  name: 'probeRound',
  initialState: (): ProbeRound => NONE,
  reducers: {
    roundBegan: (_, action: PayloadAction<{ total: number; leftOut: readonly string[] }>): ProbeRound => ({
      ...NONE,
      ...action.payload,
      status: 'running',
    }),
    roundAt: (state, action: PayloadAction<string>): ProbeRound => ({ ...state, at: [...state.at, action.payload] }),
    roundDone: (state, action: PayloadAction<string>): ProbeRound => ({
      ...state,
      done: state.done + 1,
      at: state.at.filter((id) => id !== action.payload),
    }),
    roundEnded: (state, action: PayloadAction<{ isCancelled: boolean }>): ProbeRound => ({
      ...state,
      ...action.payload,
      status: 'ended',
      at: [],
    }),
    roundRead: (): ProbeRound => NONE,
  },
});

export const { roundBegan, roundAt, roundDone, roundEnded, roundRead } = slice.actions;
export const probeRoundReducer = slice.reducer;
export const selectProbeRound = (root: { readonly probeRound: ProbeRound }): ProbeRound => root.probeRound;
