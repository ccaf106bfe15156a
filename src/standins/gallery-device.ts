import type { Oddities } from './oddities.ts';
import { ORDINARY, type Personality } from './personality.ts';
import type { LoopName } from './pictures/loop-feed.ts';

export const GALLERY_ACCOUNT = { user: 'yard', password: 'Lantern-4-Gate' } as const;
export const GALLERY_PATH = '/live';

/** A healthy camera of one small stream, as both galleries have it, but for what is odd about it. */
export const galleryDevice = (
  name: string,
  host: string,
  loop: LoopName,
  odd: Oddities = {},
  more: Partial<Personality> = {},
): Personality => ({
  name,
  host,
  port: 554,
  server: 'Fernhow 2.0',
  realm: 'Fernhow',
  account: GALLERY_ACCOUNT,
  ...ORDINARY,
  digestQop: 'auth',
  sessionTimeoutS: 60,
  maxSessions: 4,
  dropEvery: null,
  maxPayloadBytes: 1200,
  stopsAfterMs: null,
  streams: [
    {
      label: 'main',
      path: GALLERY_PATH,
      loop,
      format: {
        codec: 'H264',
        scene: 'stair',
        label: name,
        quantiser: 28,
        width: 320,
        height: 180,
        fps: 12,
        groupFrames: 24,
      },
    },
  ],
  odd,
  ...more,
});
