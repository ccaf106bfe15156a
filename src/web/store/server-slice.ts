import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ServerInfo } from '../../contract/server-info.ts';

/** Whether the server on this computer answers, and which network it dials; the network is remembered while it is away. */
export interface ServerState {
  readonly status: 'up' | 'down';
  readonly network: ServerInfo['network'] | null;
}

const slice = createSlice({
  name: 'server',
  initialState: (): ServerState => ({ status: 'down', network: null }),
  reducers: {
    serverAnswered: (state, action: PayloadAction<ServerInfo>): ServerState =>
      state.status === 'up' && state.network === action.payload.network
        ? state
        : { status: 'up', network: action.payload.network },
    serverMissed: (state): ServerState => (state.status === 'down' ? state : { ...state, status: 'down' }),
  },
});

export const { serverAnswered, serverMissed } = slice.actions;
export const serverReducer = slice.reducer;
export const selectServer = (root: { readonly server: ServerState }): ServerState => root.server;
