import { buildStreamUrl, type StreamUrl } from '../net/stream-url.ts';
import type { Camera, Stream } from './site-types.ts';

/** The URL of a stream as planned in the site, with the account's user and, when given, the secret. */
export function streamUrlOf(camera: Camera, stream: Stream, secret: string | null = null): StreamUrl {
  const queryAt = stream.path.indexOf('?');
  return {
    scheme: 'rtsp',
    user: camera.account?.user ?? null,
    password: camera.account ? secret : null,
    host: camera.host,
    port: camera.ports.rtsp,
    path: queryAt < 0 ? stream.path : stream.path.slice(0, queryAt),
    query: queryAt < 0 ? null : stream.path.slice(queryAt + 1),
  };
}

/** The URL without an account: what a probe was of, and what a hand-over was for. */
export const plainUrlOf = (camera: Camera, stream: Stream): string =>
  buildStreamUrl({ ...streamUrlOf(camera, stream), user: null, password: null });

/** Whether there is something to dial. */
export const hasAddress = (camera: Camera): boolean => camera.host.trim() !== '';
