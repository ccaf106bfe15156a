import type { Personality } from '../../src/standins/personality.ts';

const SIZE = { width: 320, height: 180 } as const;

/**
 * A camera as it is, but for pictures that cost little to draw and to show: where many are tried at once, and nobody looks. One
 * that loses packets keeps its own, since a small picture has too few to lose.
 */
export const withSmallPictures = (personality: Personality): Personality => ({
  ...personality,
  streams: personality.streams.map((stream) =>
    personality.dropEvery !== null || stream.loop || stream.format.codec !== 'H264' || stream.format.width <= SIZE.width
      ? stream
      : { ...stream, format: { ...stream.format, ...SIZE } },
  ),
});
