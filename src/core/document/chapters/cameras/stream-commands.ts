import { sayMany } from '../../../base/say.ts';
import { cameraOf, changeCamera, type Handlers, put, streamIn, without } from '../../command-parts.ts';
import type { Stream } from './camera.ts';

/** Every way a stream of a camera changes. */
export type StreamCommand =
  | { readonly kind: 'addStream'; readonly cameraId: string; readonly stream: Stream }
  | { readonly kind: 'changeStream'; readonly cameraId: string; readonly stream: Stream }
  /** What draws it goes with it. A camera keeps at least one. */
  | { readonly kind: 'removeStream'; readonly cameraId: string; readonly streamId: string }
  | { readonly kind: 'setStreamPath'; readonly cameraId: string; readonly streamId: string; readonly path: string };

const planned = ({ path, codec, width, height, fps, bitrateKbps }: Stream) => ({
  path: path || 'none',
  codec: codec ?? undefined,
  size: width !== null && height !== null ? `${width}×${height}` : undefined,
  fps: fps === null ? undefined : String(fps),
  rate: bitrateKbps === null ? undefined : `${bitrateKbps} kbit/s`,
});

export const STREAM_COMMANDS: Handlers<StreamCommand> = {
  addStream: (site, { cameraId, stream }) =>
    changeCamera(
      site,
      cameraId,
      'edit',
      `stream ${stream.label} added`,
      (camera) => ({ ...camera, streams: [...camera.streams, stream] }),
      planned(stream),
    ),
  changeStream: (site, { cameraId, stream }) => {
    const before = streamIn(cameraOf(site, cameraId), stream.id);
    const text =
      before.label === stream.label
        ? `stream ${stream.label} changed`
        : `stream ${before.label} now called ${stream.label}`;
    return changeCamera(
      site,
      cameraId,
      'edit',
      text,
      (camera) => ({ ...camera, streams: put(camera.streams, stream) }),
      planned(stream),
    );
  },
  removeStream: (site, { cameraId, streamId }) => {
    const camera = cameraOf(site, cameraId);
    const { label } = streamIn(camera, streamId);
    if (camera.streams.length === 1) throw new RangeError(`streamId: ${label} is the only stream of ${camera.name}`);
    const taps = site.taps.filter((tap) => tap.streamId !== streamId);
    const gone = site.taps.length - taps.length;
    return changeCamera(
      { ...site, taps },
      cameraId,
      'edit',
      `stream ${label} removed${gone > 0 ? `, and ${sayMany(gone, 'tap')} of it` : ''}`,
      (one) => ({ ...one, streams: without(one.streams, streamId) }),
    );
  },
  setStreamPath: (site, { cameraId, streamId, path }) => {
    const stream = streamIn(cameraOf(site, cameraId), streamId);
    return changeCamera(
      site,
      cameraId,
      'edit',
      `path of ${stream.label} changed`,
      (camera) => ({
        ...camera,
        streams: camera.streams.map((other) => (other.id === streamId ? { ...other, path } : other)),
      }),
      { from: stream.path || 'none', to: path || 'none' },
    );
  },
};
