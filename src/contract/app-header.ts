/** Every request carries it: a page of another site cannot set it without asking, and asking is refused. */
export const APP_HEADER = 'x-clear-tap';
export const APP_HEADER_VALUE = '1';
/** The same for WebSockets, which carry no headers of their own: the subprotocol. */
export const LIVE_PROTOCOL = 'clear-tap.live.1';
/** Carries the token of a server that listens beyond loopback. */
export const TOKEN_HEADER = 'x-clear-tap-token';
