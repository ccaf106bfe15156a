import { clipText } from '../../core/base/clip.ts';
import { type Camera, UNKNOWN_STREAM, UNPLANNED } from '../../core/document/chapters/cameras/camera.ts';
import type { Model } from '../../core/document/chapters/models/model-card.ts';
import { emptyModel } from '../../core/document/chapters/models/model-fields.ts';
import { accountFor } from '../../core/document/stream-address.ts';
import { type ListedCamera, type ListField, modelKey } from '../../core/imports/camera-list.ts';
import { redactText } from '../../core/net/redact-text.ts';
import { newId } from '../store/new-id.ts';

export interface CameraImport {
  readonly cameras: readonly Camera[];
  /** Those that the site does not have yet. */
  readonly models: readonly Model[];
  readonly secrets: Readonly<Record<string, string>>;
}

/** Gives listed cameras their ids; a make and model that is known here is not added twice. */
export function importOf(listed: readonly ListedCamera[], known: readonly Model[]): CameraImport {
  const byKey = new Map(known.map((model) => [modelKey(model), model]));
  const models: Model[] = [];
  const secrets: Record<string, string> = {};
  const cameras = listed.map((one): Camera => {
    const id = newId('camera');
    let model = one.model === '' ? undefined : byKey.get(modelKey(one));
    if (one.model !== '' && !model) {
      model = emptyModel(newId('model'), one.maker, one.model);
      byKey.set(modelKey(model), model);
      models.push(model);
    }
    const secretRef = `secret-${id}`;
    if (one.secret !== '') secrets[secretRef] = one.secret;
    return {
      id,
      name: one.name,
      place: one.place,
      kind: 'camera',
      modelId: model?.id ?? null,
      host: one.host,
      ports: { rtsp: one.port },
      account: accountFor(
        one.user,
        one.paths.map(({ path }) => path),
        secretRef,
      ),
      streams: one.paths.map(({ label, path }) => ({ id: newId('stream'), label, path, ...UNKNOWN_STREAM })),
      ...UNPLANNED,
      line: one.line,
      identity: { mac: one.mac, serial: one.serial, endpoint: '' },
    };
  });
  return { cameras, models, secrets };
}

/** A cell as the preview shows it: never a secret, wherever in it one stands. */
export const cellShown = (field: ListField, text: string): string =>
  field === 'password' && text !== '' ? '••••••••' : redactText(clipText(text, SHOWN_CHARS));

/** A cell is looked over, not read through. */
const SHOWN_CHARS = 400;
