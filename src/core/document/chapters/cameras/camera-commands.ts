import { sayMany } from '../../../base/say.ts';
import { cameraOf, changeCamera, type Handlers, sayValue, streamIn, words } from '../../command-parts.ts';
import { cameraSubject } from '../../subject.ts';
import { type Model, nameOfModel } from '../models/model-card.ts';
import type { Account, Camera, Stream } from './camera.ts';
import type { Feed } from './feed.ts';
import type { Mounting } from './mounting.ts';
import type { Need } from './need.ts';

/** Every way a camera changes: what it is for, where it hangs, what feeds it, how it is reached. */
export type CameraCommand =
  | { readonly kind: 'addCamera'; readonly camera: Camera }
  | {
      readonly kind: 'importCameras';
      readonly cameras: readonly Camera[];
      readonly models: readonly Model[];
      readonly from: string;
      readonly leftOut: number;
    }
  | { readonly kind: 'setNeed'; readonly cameraId: string; readonly need: Need | null }
  | { readonly kind: 'setMounting'; readonly cameraId: string; readonly mounting: Mounting | null }
  | { readonly kind: 'setCandidates'; readonly cameraId: string; readonly candidates: readonly string[] }
  | { readonly kind: 'chooseModel'; readonly cameraId: string; readonly modelId: string | null }
  | { readonly kind: 'setFeed'; readonly cameraId: string; readonly feed: Feed | null }
  | { readonly kind: 'setAddress'; readonly cameraId: string; readonly host: string; readonly port: number }
  | { readonly kind: 'setAccount'; readonly cameraId: string; readonly account: Account | null }
  | { readonly kind: 'setStreamPath'; readonly cameraId: string; readonly streamId: string; readonly path: string }
  | { readonly kind: 'addStream'; readonly cameraId: string; readonly stream: Stream };

const sayAddress = ({ host, ports }: Camera): string => `${host || 'none'}:${ports.rtsp}`;

const refsOfNeed = (need: Need | null) =>
  need
    ? {
        level: sayValue(need.level),
        text: need.text ? `${need.text.charHeightMm} mm` : 'none',
        distance: `${need.distanceM} m`,
        width: `${need.widthM} m`,
      }
    : {};

const refsOfMounting = (mounting: Mounting | null) =>
  mounting
    ? {
        height: `${mounting.heightM} m`,
        tilt: `${mounting.tiltDownDeg}°`,
        heading: `${mounting.headingDeg}°`,
        zoom: mounting.zoom === null ? 'to the zone' : `${mounting.zoom}×`,
      }
    : {};

export const CAMERA_COMMANDS: Handlers<CameraCommand> = {
  addCamera: (site, { camera }) => ({
    site: { ...site, cameras: [...site.cameras, camera] },
    log: words('edit', cameraSubject(camera.id), `${camera.name} added`, {
      address: `${camera.host}:${camera.ports.rtsp}`,
    }),
  }),
  importCameras: (site, { cameras, models, from, leftOut }) => ({
    site: { ...site, models: [...site.models, ...models], cameras: [...site.cameras, ...cameras] },
    log: words('edit', 'site', `${sayMany(cameras.length, 'camera')} imported from ${from}`, {
      names: cameras.map(({ name }) => name).join(', '),
      'rows left out': leftOut > 0 ? String(leftOut) : undefined,
    }),
  }),
  setNeed: (site, { cameraId, need }) => {
    const text = need ? 'need said' : 'need taken away';
    return changeCamera(site, cameraId, 'choose', text, (camera) => ({ ...camera, need }), refsOfNeed(need));
  },
  setMounting: (site, { cameraId, mounting }) =>
    changeCamera(
      site,
      cameraId,
      'choose',
      'mounting changed',
      (camera) => ({ ...camera, mounting }),
      refsOfMounting(mounting),
    ),
  setCandidates: (site, { cameraId, candidates }) =>
    changeCamera(site, cameraId, 'choose', sayMany(candidates.length, 'candidate'), (camera) => ({
      ...camera,
      candidates,
    })),
  chooseModel: (site, { cameraId, modelId }) => {
    const model = site.models.find(({ id }) => id === modelId);
    if (modelId !== null && !model) throw new RangeError(`modelId: there is no model ${modelId}`);
    const text = model ? `${nameOfModel(model)} chosen` : 'no model chosen';
    return changeCamera(site, cameraId, 'choose', text, (camera) => ({ ...camera, modelId }));
  },
  setFeed: (site, { cameraId, feed }) => {
    const text = feed ? 'power planned' : 'power taken away';
    return changeCamera(site, cameraId, 'power', text, (camera) => ({ ...camera, feed }), { way: feed?.way });
  },
  setAddress: (site, { cameraId, host, port }) => {
    const before = cameraOf(site, cameraId);
    const after = { ...before, host, ports: { ...before.ports, rtsp: port } };
    const refs = { from: sayAddress(before), to: sayAddress(after) };
    return changeCamera(site, cameraId, 'edit', 'address changed', () => after, refs);
  },
  setAccount: (site, { cameraId, account }) => {
    const refs = { from: cameraOf(site, cameraId).account?.user ?? 'none', to: account?.user ?? 'none' };
    return changeCamera(site, cameraId, 'edit', 'account changed', (camera) => ({ ...camera, account }), refs);
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
  addStream: (site, { cameraId, stream }) =>
    changeCamera(
      site,
      cameraId,
      'edit',
      `stream ${stream.label} added`,
      (camera) => ({ ...camera, streams: [...camera.streams, stream] }),
      { path: stream.path || 'none' },
    ),
};
