import type { UrlScheme } from './stream-url.ts';

/** Plain RTSP, RTSP over TLS (rtsps), or RTSP inside HTTP. */
export const CAMERA_LINES = ['plain', 'tls', 'tunnel'] as const;
export type CameraLine = (typeof CAMERA_LINES)[number];
export const LINE_WORDS: Readonly<Record<CameraLine, string>> = {
  plain: 'plain RTSP',
  tls: 'RTSP over TLS',
  tunnel: 'RTSP over HTTP',
};
/** By which a URL says it. */
export const SCHEMES_OF_LINES = { plain: 'rtsp', tls: 'rtsps', tunnel: 'http' } as const satisfies Readonly<
  Record<CameraLine, string>
>;

/** The line that a URL means; `null` for one that carries no RTSP. */
export const lineOfScheme = (scheme: UrlScheme): CameraLine | null =>
  CAMERA_LINES.find((line) => SCHEMES_OF_LINES[line] === scheme) ?? null;
