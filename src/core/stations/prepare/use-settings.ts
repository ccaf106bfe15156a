import type { TapUse } from '../../base/tap-uses.ts';

/** What an encoder should be set to for a use, and why. */
interface UseSetting {
  /** Frames a second that suffice. */
  readonly fps: number;
  readonly fpsWhy: string;
  /** Longest wait for a key frame that serves it, s. */
  readonly keyFrameS: number;
  readonly keyFrameWhy: string;
}

/** One row for each use [A]. */
export const USE_SETTINGS: Readonly<Record<TapUse, UseSetting>> = {
  record: {
    fps: 15,
    fpsWhy: 'a face is sharp in one of fifteen; more fills the disk',
    keyFrameS: 2,
    keyFrameWhy: 'a recording is cut and searched at key frames',
  },
  live: {
    fps: 15,
    fpsWhy: 'motion looks smooth from fifteen',
    keyFrameS: 1,
    keyFrameWhy: 'whoever opens it waits for the next key frame',
  },
  detect: {
    fps: 5,
    fpsWhy: 'a detector looks at five a second; more only warms it',
    keyFrameS: 1,
    keyFrameWhy: 'it starts at a key frame after every interruption',
  },
  still: {
    fps: 5,
    fpsWhy: 'one frame of it is used',
    keyFrameS: 1,
    keyFrameWhy: 'a snapshot is a key frame, and nobody waits long for it',
  },
};

/** The uses of a stream as one: most frames that one of them needs, shortest wait that one of them bears. */
export function settingFor(uses: readonly TapUse[]): UseSetting | null {
  const rows = uses.map((use) => USE_SETTINGS[use]);
  const [first] = rows;
  if (!first) return null;
  const most = rows.reduce((best, row) => (row.fps > best.fps ? row : best), first);
  const shortest = rows.reduce((best, row) => (row.keyFrameS < best.keyFrameS ? row : best), first);
  return { ...most, keyFrameS: shortest.keyFrameS, keyFrameWhy: shortest.keyFrameWhy };
}
