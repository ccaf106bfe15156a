import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { selectSite } from './site-slice.ts';

/** A round of probes over many cameras, as far as it got. */
export interface ProbeAll {
  readonly status: 'none' | 'running' | 'ended';
  /** The site that it goes through. */
  readonly siteId: string;
  readonly total: number;
  readonly done: number;
  /** Cameras that are dialled now. */
  readonly at: readonly string[];
  /** Names of cameras whose secret is not in reach: they were not dialled. */
  readonly leftOut: readonly string[];
  readonly isCancelled: boolean;
}

const NONE: ProbeAll = { status: 'none', siteId: '', total: 0, done: 0, at: [], leftOut: [], isCancelled: false };

const slice = createSlice({
  name: 'probeRound',
  initialState: (): ProbeAll => NONE,
  reducers: {
    roundBegan: (_, action: PayloadAction<Pick<ProbeAll, 'siteId' | 'total' | 'leftOut'>>): ProbeAll => ({
      ...NONE,
      ...action.payload,
      status: 'running',
    }),
    roundAt: (state, action: PayloadAction<string>): ProbeAll => ({ ...state, at: [...state.at, action.payload] }),
    roundDone: (state, action: PayloadAction<string>): ProbeAll => ({
      ...state,
      done: state.done + 1,
      at: state.at.filter((id) => id !== action.payload),
    }),
    /** Its secret went out of reach meanwhile. */
    roundLeftOut: (state, action: PayloadAction<string>): ProbeAll => ({
      ...state,
      total: state.total - 1,
      leftOut: [...state.leftOut, action.payload],
    }),
    roundEnded: (state, action: PayloadAction<{ isCancelled: boolean }>): ProbeAll => ({
      ...state,
      ...action.payload,
      status: 'ended',
      at: [],
    }),
    roundRead: (): ProbeAll => NONE,
  },
});

export const { roundBegan, roundAt, roundDone, roundLeftOut, roundEnded, roundRead } = slice.actions;
export const probeAllReducer = slice.reducer;
/** The round through the site that is open; one through another site is none here. */
export const selectProbeAll = (root: { readonly probeRound: ProbeAll } & Parameters<typeof selectSite>[0]): ProbeAll =>
  root.probeRound.siteId === selectSite(root).id ? root.probeRound : NONE;
