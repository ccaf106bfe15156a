import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ServerInfo } from '../../contract/server-info.ts';

/** Whether the server on this computer answers, and which network it dials; the network is remembered while it is away. */
export interface ServerState {
  readonly status: 'up' | 'down';
  readonly network: ServerInfo['network'] | null;
  /** Accounts that devices refused in the last ten minutes. */
  readonly logins: ServerInfo['logins'];
}

const NO_LOGINS: ServerInfo['logins'] = [];

/** Whether the same accounts were refused as often: how soon that is forgotten is no change. */
const sameLogins = (a: ServerInfo['logins'], b: ServerInfo['logins']): boolean =>
  a.length === b.length &&
  a.every((one, at) => {
    const other = b[at];
    return (
      one.host === other?.host &&
      one.user === other.user &&
      one.refused === other.refused &&
      one.isHeld === other.isHeld
    );
  });

const slice = createSlice({
  name: 'server',
  initialState: (): ServerState => ({ status: 'down', network: null, logins: NO_LOGINS }),
  reducers: {
    serverAnswered: (state, action: PayloadAction<ServerInfo>): ServerState =>
      state.status === 'up' &&
      state.network === action.payload.network &&
      sameLogins(state.logins, action.payload.logins)
        ? state
        : { status: 'up', network: action.payload.network, logins: action.payload.logins },
    serverMissed: (state): ServerState => (state.status === 'down' ? state : { ...state, status: 'down' }),
  },
});

export const { serverAnswered, serverMissed } = slice.actions;
export const serverReducer = slice.reducer;
export const selectServer = (root: { readonly server: ServerState }): ServerState => root.server;
/** What the server remembers of logins of an account at a host. */
export const loginLineOf = (
  logins: ServerInfo['logins'],
  host: string,
  user: string,
): ServerInfo['logins'][number] | undefined =>
  logins.find((one) => one.host === host.trim().toLowerCase() && one.user === user);
