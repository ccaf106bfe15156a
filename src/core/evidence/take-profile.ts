import { clipText } from '../base/clip.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import { type Camera, type Stream, UNKNOWN_STREAM } from '../document/chapters/cameras/camera.ts';
import type { ManyCommands, OneCommand } from '../document/site-commands.ts';
import { freeName } from '../document/things.ts';
import type { ReadProfile } from '../onvif/reading.ts';
import { keptPath } from './kept-path.ts';

/** The stream of a camera that a profile is, by its path. */
export const streamOfProfile = (camera: Camera, profile: Pick<ReadProfile, 'stream'>): Stream | undefined => {
  const path = keptPath(profile);
  return path === null ? undefined : camera.streams.find((stream) => stream.path === path);
};

/**
 * Makes a stream of what a device offers: its path, and the port that it gave. A stream that is given gets the path; without
 * one a new stream is made, by the name of the profile.
 * @returns what does it, and which stream it then is; `null` where the profile gives no address that could be kept
 */
export function takeProfile(
  camera: Camera,
  profile: Pick<ReadProfile, 'name' | 'token' | 'stream'>,
  into: Stream | null,
  newId: () => string,
): { readonly command: ManyCommands; readonly streamId: string } | null {
  const path = keptPath(profile);
  if (path === null || !profile.stream || (!into && camera.streams.length >= LIST_LIMITS.streamsOfCamera)) return null;
  const { port } = profile.stream;
  const name = clipText(profile.name.trim() || profile.token.trim() || 'stream', TEXT_LIMITS.label);
  const taken = camera.streams.map(({ label }) => label);
  const label = taken.includes(name) ? freeName(name, taken, TEXT_LIMITS.label) : name;
  const streamId = into?.id ?? newId();
  const stream: OneCommand = into
    ? { kind: 'setStreamPath', cameraId: camera.id, streamId, path }
    : { kind: 'addStream', cameraId: camera.id, stream: { ...UNKNOWN_STREAM, id: streamId, label, path } };
  const moved: readonly OneCommand[] =
    port === camera.ports.rtsp ? [] : [{ kind: 'setAddress', cameraId: camera.id, host: camera.host, port }];
  return {
    command: { kind: 'many', commands: [stream, ...moved], what: `${camera.name}: profile ${name} taken` },
    streamId,
  };
}
