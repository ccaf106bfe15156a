import { TEXT_LIMITS } from '../base/limits.ts';
import { STREAM_PATH } from '../net/path-places.ts';
import type { ReadProfile } from '../onvif/reading.ts';

/** A path of a device that a site can keep; `null` where it is none. */
export const keptPath = ({ stream }: Pick<ReadProfile, 'stream'>): string | null =>
  stream && stream.scheme === 'rtsp' && stream.path.length <= TEXT_LIMITS.path && STREAM_PATH.test(stream.path)
    ? stream.path
    : null;
