import { sayMany } from '../../../base/say.ts';
import type { Keeping } from '../../../net/address-plan.ts';
import { type CameraLine, SCHEMES_OF_LINES } from '../../../net/camera-line.ts';
import {
  type Changed,
  cameraOf,
  changeCamera,
  type Handlers,
  itemOf,
  sayValue,
  without,
  words,
} from '../../command-parts.ts';
import type { Site } from '../../site.ts';
import { cameraSubject } from '../../subject.ts';
import type { Model } from '../models/model-card.ts';
import { nameOfModel } from '../models/model-name.ts';
import type { Account, Camera, Stream } from './camera.ts';
import type { Feed } from './feed.ts';
import { type Identity, UNKNOWN_IDENTITY } from './identity.ts';
import type { Mounting } from './mounting.ts';
import type { Need } from './need.ts';
import { PREPARE_COMMANDS, type PrepareCommand } from './prepare-commands.ts';
import { NO_STEERING } from './ptz.ts';
import { STEERING_COMMANDS, type SteeringCommand } from './ptz-commands.ts';
import { STREAM_COMMANDS, type StreamCommand } from './stream-commands.ts';

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
  | { readonly kind: 'setLine'; readonly cameraId: string; readonly line: CameraLine }
  | { readonly kind: 'setOnvifPort'; readonly cameraId: string; readonly port: number | null; readonly isTls?: boolean }
  | { readonly kind: 'setIdentity'; readonly cameraId: string; readonly identity: Identity }
  | { readonly kind: 'setKeeping'; readonly cameraId: string; readonly keeping: Keeping | null }
  | { readonly kind: 'setAccount'; readonly cameraId: string; readonly account: Account | null }
  | {
      /** What it is called and what it is, beside what other commands say. */
      readonly kind: 'changeCamera';
      readonly cameraId: string;
      readonly changed: Partial<Pick<Camera, 'name' | 'place' | 'kind' | 'channel' | 'memoryCard'>>;
    }
  /** All that draws it and all that joins it goes with it; its record stays. */
  | { readonly kind: 'removeCamera'; readonly cameraId: string }
  | {
      /** Another device in its place: taps, links, need and record stay; what was measured of the old one no longer counts. */
      readonly kind: 'replaceCamera';
      readonly cameraId: string;
      readonly modelId: string;
      readonly streams: readonly { readonly stream: Stream; readonly instead: string | null }[];
    }
  | StreamCommand
  | PrepareCommand
  | SteeringCommand;

const sayAddress = ({ host, ports }: Camera): string => `${host || 'none'}:${ports.rtsp}`;

const KEEPING_WORDS: Readonly<Record<Keeping | 'none', string>> = {
  reservation: 'DHCP reservation planned',
  static: 'static address on the device',
  dynamic: 'DHCP without a reservation',
  none: 'address assignment not decided',
};

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
    const text = need ? 'need entered' : 'need removed';
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
    const text = model ? `${nameOfModel(model)} chosen` : 'no model card chosen';
    return changeCamera(site, cameraId, 'choose', text, (camera) => ({ ...camera, modelId }));
  },
  setFeed: (site, { cameraId, feed }) => {
    const text = feed ? 'power source planned' : 'power source removed';
    return changeCamera(site, cameraId, 'power', text, (camera) => ({ ...camera, feed }), { way: feed?.way });
  },
  setAddress: (site, { cameraId, host, port }) => {
    const before = cameraOf(site, cameraId);
    const after = { ...before, host, ports: { ...before.ports, rtsp: port } };
    const refs = { from: sayAddress(before), to: sayAddress(after) };
    return changeCamera(site, cameraId, 'edit', 'address changed', () => after, refs);
  },
  setLine: (site, { cameraId, line }) => {
    const refs = { from: SCHEMES_OF_LINES[cameraOf(site, cameraId).line], to: SCHEMES_OF_LINES[line] };
    return changeCamera(site, cameraId, 'edit', 'connection changed', (camera) => ({ ...camera, line }), refs);
  },
  setOnvifPort: (site, { cameraId, port, isTls }) => {
    const before = cameraOf(site, cameraId);
    const onvifTls = isTls ?? before.onvifTls;
    const words = (of: number | null, tls: boolean): string => `${sayValue(of)}${tls ? ', with TLS' : ''}`;
    const refs = { from: words(before.onvifPort, before.onvifTls), to: words(port, onvifTls) };
    return changeCamera(
      site,
      cameraId,
      'edit',
      'ONVIF port changed',
      (camera) => ({ ...camera, onvifPort: port, onvifTls }),
      refs,
    );
  },
  setIdentity: (site, { cameraId, identity }) => {
    const { mac, serial, endpoint } = identity;
    const refs = { hardware: mac || undefined, serial: serial || undefined, endpoint: endpoint || undefined };
    return changeCamera(site, cameraId, 'address', 'identity changed', (camera) => ({ ...camera, identity }), refs);
  },
  setKeeping: (site, { cameraId, keeping }) =>
    changeCamera(site, cameraId, 'address', KEEPING_WORDS[keeping ?? 'none'], (camera) => ({ ...camera, keeping })),
  setAccount: (site, { cameraId, account }) => {
    const refs = { from: cameraOf(site, cameraId).account?.user ?? 'none', to: account?.user ?? 'none' };
    return changeCamera(site, cameraId, 'edit', 'account changed', (camera) => ({ ...camera, account }), refs);
  },
  changeCamera: (site, { cameraId, changed }) => {
    const before = cameraOf(site, cameraId);
    const { name = before.name } = changed;
    const text = name === before.name ? 'changed' : `now called ${name}`;
    return changeCamera(site, cameraId, 'edit', text, (camera) => ({ ...camera, ...changed }));
  },
  removeCamera: (site, { cameraId }) => {
    const { name } = cameraOf(site, cameraId);
    const subject = cameraSubject(cameraId);
    return {
      site: {
        ...site,
        cameras: without(site.cameras, cameraId),
        taps: site.taps.filter((tap) => tap.cameraId !== cameraId),
        links: site.links.filter(({ from, to }) => from !== subject && to !== subject),
      },
      log: words('edit', 'site', `${name} removed`),
    };
  },
  replaceCamera: (site, { cameraId, modelId, streams }) => replaceCamera(site, cameraId, modelId, streams),
  ...STREAM_COMMANDS,
  ...PREPARE_COMMANDS,
  ...STEERING_COMMANDS,
};

function replaceCamera(
  site: Site,
  cameraId: string,
  modelId: string,
  streams: Extract<CameraCommand, { readonly kind: 'replaceCamera' }>['streams'],
): Changed {
  const model = itemOf(site.models, modelId, 'model');
  const before = cameraOf(site, cameraId);
  const instead = new Map(streams.flatMap(({ stream, instead }) => (instead === null ? [] : [[instead, stream.id]])));
  const taps = site.taps.map((tap) =>
    tap.cameraId === cameraId ? { ...tap, streamId: instead.get(tap.streamId) ?? streams[0]?.stream.id ?? '' } : tap,
  );
  const changed = changeCamera({ ...site, taps }, cameraId, 'edit', `replaced by ${nameOfModel(model)}`, (camera) => ({
    ...camera,
    modelId,
    streams: streams.map(({ stream }) => stream),
    // what was decided and made ready was for the other board
    reflash: null,
    identity: UNKNOWN_IDENTITY,
    onvifPort: null,
    onvifTls: false,
    steering: NO_STEERING,
  }));
  // Streams are new ones, and nothing is measured of them yet; what was seen of the device itself is taken back here.
  const subject = cameraSubject(before.id);
  const isOfDevice = (known: string | undefined): boolean =>
    known === subject || known?.endsWith(`:${subject}`) === true;
  const ofDevice = site.journal.filter(
    ({ facts, payload }) => isOfDevice(payload?.of) || facts.some((fact) => isOfDevice(fact.subject)),
  );
  return { ...changed, revokes: ofDevice.map(({ id }) => id) };
}
