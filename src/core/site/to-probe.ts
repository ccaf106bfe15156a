import { pushTo } from '../base/push-to.ts';
import type { Camera, Stream } from '../document/chapters/cameras/camera.ts';
import type { Tap } from '../document/chapters/taps/tap.ts';
import type { Site } from '../document/site.ts';
import { hasAddress, plainUrlOf } from '../document/stream-address.ts';
import { streamSubject } from '../document/subject.ts';
import { type EvidenceIndex, lastPayload } from '../evidence/evidence-index.ts';

/** Streams that count for a camera: those that are tapped, or its first one. */
export function streamsInUse(camera: Camera, taps: readonly Tap[]): readonly Stream[] {
  const tapped = camera.streams.filter((stream) => taps.some((tap) => tap.streamId === stream.id));
  return tapped.length > 0 ? tapped : camera.streams.slice(0, 1);
}

/** One camera with the streams of it that are to be probed, one after the other. */
export interface CameraToProbe {
  readonly camera: Camera;
  readonly streams: readonly Stream[];
}

/** Whether the last probe of a stream was of the address that it has now. */
const isProbed = (index: EvidenceIndex, camera: Camera, stream: Stream): boolean =>
  lastPayload(index, streamSubject(stream.id), 'probe')?.payload.url === plainUrlOf(camera, stream);

/**
 * What a round of probes would dial: of every camera with an address the streams in use that were not probed there yet.
 * @param again also those that were
 */
export function camerasToProbe(site: Site, index: EvidenceIndex, again = false): readonly CameraToProbe[] {
  const taps = new Map<string, Tap[]>();
  for (const tap of site.taps) pushTo(taps, tap.cameraId, tap);
  return site.cameras.flatMap((camera) => {
    if (!hasAddress(camera)) return [];
    const used = streamsInUse(camera, taps.get(camera.id) ?? []);
    const streams = again ? used : used.filter((stream) => !isProbed(index, camera, stream));
    return streams.length > 0 ? [{ camera, streams }] : [];
  });
}

/** So many cameras are dialled at once by a round: gentle to a network that others work in. */
export const CAMERAS_AT_ONCE = 3;
