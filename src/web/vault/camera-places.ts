import type { Camera, Stream } from '../../core/document/chapters/cameras/camera.ts';
import type { Model } from '../../core/document/chapters/models/model-card.ts';
import type { Site } from '../../core/document/site.ts';
import { onvifPortOf } from '../../core/evidence/onvif-port.ts';
import { asksForSecret } from '../../core/net/path-places.ts';
import type { Bound, PasswordPlace } from './password-place.ts';

// Small, and apart from who asks for them: the first view binds the passwords of the demo.

/** Where RTSP of a camera is asked; with one stream, also whether its path takes the password. */
export const rtspPlace = (
  camera: Pick<Camera, 'host' | 'ports' | 'line' | 'streams'>,
  stream?: Stream,
): PasswordPlace => ({
  host: camera.host.trim(),
  port: camera.ports.rtsp,
  line: camera.line,
  inPath: stream ? asksForSecret(stream.path) : camera.streams.some(({ path }) => asksForSecret(path)),
});
export const onvifPlace = (camera: Camera, model: Model | undefined): PasswordPlace => ({
  host: camera.host.trim(),
  port: onvifPortOf(camera, model),
  line: camera.onvifTls ? 'tls' : 'plain',
  inPath: false,
});

/** Where a password that is typed for a camera goes: none where it has no address yet. */
export const placesOf = (camera: Camera, model: Model | undefined): readonly PasswordPlace[] =>
  camera.host.trim() === '' ? [] : [rtspPlace(camera), onvifPlace(camera, model)];

const modelOf = ({ models }: Pick<Site, 'models'>, { modelId }: Camera): Model | undefined =>
  models.find(({ id }) => id === modelId);

/** What a password is bound to that is typed, or made, for an account of a camera as it stands. */
export const boundTo = (site: Pick<Site, 'name' | 'models'>, camera: Camera, user: string): Bound => ({
  siteName: site.name,
  cameraId: camera.id,
  cameraName: camera.name,
  user,
  places: placesOf(camera, modelOf(site, camera)),
  mayGoReadable: false,
});
