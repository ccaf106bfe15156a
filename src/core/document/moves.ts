import type { Camera } from './chapters/cameras/camera.ts';
import { isDeviceOf } from './chapters/cameras/devices.ts';
import type { OneCommand, SiteCommand } from './site-commands.ts';

/** Each of these cameras at an address, behind the ports that it has; one that is there already stays untouched. */
export const moveCommands = (cameras: readonly Camera[], host: string): OneCommand[] =>
  cameras
    .filter((camera) => camera.host !== host)
    .map(({ id, ports }) => ({ kind: 'setAddress', cameraId: id, host, port: ports.rtsp }));

/** All channels of a box share its address: they move together. */
export const moveDevice = (cameras: readonly Camera[], camera: Camera, host: string): OneCommand[] =>
  moveCommands(
    cameras.filter((other) => isDeviceOf(camera, other)),
    host,
  );

/** One edit. What is done alone says so better than any summary. */
export function asOne(what: string, commands: readonly OneCommand[]): SiteCommand {
  const [first] = commands;
  return commands.length === 1 && first ? first : { kind: 'many', what, commands };
}
