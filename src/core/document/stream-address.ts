import { SCHEMES_OF_LINES } from '../net/camera-line.ts';
import { asksForLogin, fillPath } from '../net/path-places.ts';
import { buildStreamUrl, type StreamUrl, withPath } from '../net/stream-url.ts';
import type { Account, Camera, Stream } from './chapters/cameras/camera.ts';

/**
 * The URL of a stream as planned in the site, with the account's user and, when given, the secret: also where the path
 * asks for it. Without the secret the path keeps its placeholders.
 */
export function streamUrlOf(camera: Camera, stream: Stream, secret: string | null = null): StreamUrl {
  const { account } = camera;
  const user = account?.user || null; // a login that is in the path alone may have no user
  const bare: StreamUrl = {
    scheme: SCHEMES_OF_LINES[camera.line],
    user,
    password: user === null ? null : secret,
    host: camera.host,
    port: camera.ports.rtsp,
    path: '',
    query: null,
  };
  return withPath(bare, account && secret !== null ? fillPath(stream.path, account.user, secret) : stream.path);
}

/** The account that a camera needs: none where neither a user is known nor a path asks for a login. */
export const accountFor = (user: string, paths: readonly string[], secretRef: string): Account | null =>
  user === '' && !paths.some(asksForLogin) ? null : { user, secretRef };

/** The URL without an account: what a probe was of, and what a hand-over was for. */
export const plainUrlOf = (camera: Camera, stream: Stream): string =>
  buildStreamUrl({ ...streamUrlOf(camera, stream), user: null, password: null });

/** Whether there is something to dial. */
export const hasAddress = (camera: Camera): boolean => camera.host.trim() !== '';
