import { APP_HEADER, APP_HEADER_VALUE, TOKEN_HEADER } from '../../contract/app-header.ts';
import type { DemoSite, ServerInfo } from '../../contract/server-info.ts';

/** The server on this machine did not answer. `message` is for the person. */
export class ServerUnreachable extends Error {
  override readonly name = 'ServerUnreachable';
}

/** The server is there and said no. `message` is for the person. */
export class ServerRefused extends Error {
  override readonly name = 'ServerRefused';
}

const TOKEN_KEY = 'clear-tap:token';

/** The token of the printed address. It stays with the tab, over reloads, and leaves the address bar. */
function takeToken(): string | null {
  const given = new URLSearchParams(globalThis.location?.search ?? '').get('token');
  try {
    if (given === null) return globalThis.sessionStorage?.getItem(TOKEN_KEY) ?? null;
    sessionStorage.setItem(TOKEN_KEY, given);
    const url = new URL(location.href);
    url.searchParams.delete('token');
    history.replaceState(history.state, '', url);
  } catch {
    // a browser that keeps nothing: the token lasts as long as the page, and stays where it was found
  }
  return given;
}

/** A server that listens beyond loopback answers only who knows its token. */
export const serverToken: string | null = takeToken();

export async function callServer(path: string, init: RequestInit = {}): Promise<Response> {
  const headers = new Headers(init.headers);
  headers.set(APP_HEADER, APP_HEADER_VALUE);
  if (serverToken !== null) headers.set(TOKEN_HEADER, serverToken);
  let response: Response;
  try {
    response = await fetch(path, { ...init, headers });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ServerUnreachable(
      'Clear Tap’s own server on this computer does not respond. Start it again; the site is safe in this browser.',
    );
  }
  if (!response.ok) {
    const said: { detail?: unknown } = await response.json().catch(() => ({}));
    const detail = typeof said.detail === 'string' ? said.detail : 'It gave no reason.';
    throw new ServerRefused(`Clear Tap’s own server refused the request (${response.status}). ${detail}`);
  }
  return response;
}

export const fetchInfo = async (): Promise<ServerInfo> => (await callServer('/api/info')).json();
export const fetchDemo = async (): Promise<DemoSite> => (await callServer('/api/demo')).json();

/** Why a piece of work broke off. @param work as it is called within a sentence: “the reading” */
export const sayBreak = (error: unknown, work: string): string =>
  error instanceof ServerRefused || error instanceof ServerUnreachable
    ? error.message
    : `Clear Tap’s own server stopped during ${work}. Start it again and repeat it; nothing is lost.`;
