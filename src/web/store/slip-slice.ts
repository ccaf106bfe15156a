import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** What is laid over the sheet and can be asked for from anywhere. */
export type Slip =
  | 'none'
  | 'find'
  | 'shortcuts'
  | 'vault'
  | 'assumptions'
  | 'cards'
  | 'site'
  | 'camera'
  | 'gear'
  | 'destination';

const slice = createSlice({
  name: 'slip',
  initialState: (): Slip => 'none',
  reducers: {
    slipAsked: (_, action: PayloadAction<Slip>): Slip => action.payload,
  },
});

export const { slipAsked } = slice.actions;
export const slipReducer = slice.reducer;
export const selectSlip = (root: { readonly slip: Slip }): Slip => root.slip;
