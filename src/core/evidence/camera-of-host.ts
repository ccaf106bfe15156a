import { clipText } from '../base/clip.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { type Camera, UNKNOWN_STREAM, UNPLANNED } from '../document/chapters/cameras/camera.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import type { Site } from '../document/site.ts';
import type { OneCommand } from '../document/site-commands.ts';
import { freeName } from '../document/things.ts';
import { DEFAULT_PORTS } from '../net/stream-url.ts';
import type { SeenHost } from '../scan/seen.ts';
import { streamsOfCard } from './offered-streams.ts';

const portOf = ({ doors }: SeenHost): number | null => doors.find(({ is }) => is === 'rtsp')?.port ?? null;

/** The one card of the site that bears the name by which a host calls its model. */
export function modelOfHost({ models }: Pick<Site, 'models'>, { hardware, doors }: SeenHost): Model | null {
  const said = [hardware, ...doors.map(({ title }) => title)]
    .filter((text) => text !== '')
    .map((text) => text.toLowerCase());
  const found = models.filter(({ maker, model }) =>
    said.some((text) => text === model.toLowerCase() || text === `${maker} ${model}`.toLowerCase()),
  );
  return found.length === 1 ? (found[0] ?? null) : null;
}

const NO_IDENTITY: Camera['identity'] = { mac: '', serial: '', endpoint: '' };

/** What stays the same of a host, as a camera keeps it; what it has already stays where the host says nothing. */
export const identityOf = (
  { mac, serial, endpoints }: SeenHost,
  { identity } = { identity: NO_IDENTITY },
): Camera['identity'] => ({
  mac: mac || identity.mac,
  serial: serial || identity.serial,
  endpoint: endpoints[0] || identity.endpoint,
});

/** A camera made of an answer: its name, its model and its streams as far as it says so itself, and what stays of it. */
export function cameraOfHost(
  site: Pick<Site, 'cameras' | 'models'>,
  host: SeenHost,
  newId: (kind: string) => string,
): Camera {
  const model = modelOfHost(site, host);
  const said = host.name || host.doors.find(({ title }) => title !== '')?.title || `Camera at ${host.host}`;
  const name = clipText(said, TEXT_LIMITS.name);
  const names = site.cameras.map((camera) => camera.name);
  const streams = model ? streamsOfCard(model, { channel: null }) : [];
  return {
    ...UNPLANNED,
    id: newId('camera'),
    name: names.includes(name) ? freeName(name, names) : name,
    place: '',
    kind: 'camera',
    modelId: model?.id ?? null,
    host: host.host,
    ports: { rtsp: portOf(host) ?? model?.rtspPort ?? DEFAULT_PORTS.rtsp },
    account: null,
    identity: identityOf(host),
    streams:
      streams.length > 0
        ? streams.map(({ stream }) => ({ ...stream, id: newId('stream') }))
        : [{ id: newId('stream'), label: 'main', path: '', ...UNKNOWN_STREAM }],
  };
}

/** A camera that is planned already is this answer: it takes its address, its port and what stays of it. */
export function bindCommands(camera: Camera, host: SeenHost): readonly OneCommand[] {
  const port = portOf(host) ?? camera.ports.rtsp;
  return [
    ...(camera.host === host.host && camera.ports.rtsp === port
      ? []
      : [{ kind: 'setAddress' as const, cameraId: camera.id, host: host.host, port }]),
    { kind: 'setIdentity', cameraId: camera.id, identity: identityOf(host, camera) },
  ];
}
