import type { ListedCamera, ListField } from '../../core/imports/camera-list.ts';
import { emptyModel, type Model } from '../../core/models/model-card.ts';
import { redactUrl } from '../../core/net/stream-url.ts';
import { type Camera, UNKNOWN_STREAM, UNPLANNED } from '../../core/site/site-types.ts';
import { newId } from '../store/new-id.ts';

export interface CameraImport {
  readonly cameras: readonly Camera[];
  /** Those that the site does not have yet. */
  readonly models: readonly Model[];
  readonly secrets: Readonly<Record<string, string>>;
}

/** Gives listed cameras their ids; a make and model that is known here is not added twice. */
export function importOf(listed: readonly ListedCamera[], known: readonly Model[]): CameraImport {
  const keyOf = (model: Pick<Model, 'maker' | 'model'>): string => `${model.maker} ${model.model}`.toLowerCase();
  const byKey = new Map(known.map((model) => [keyOf(model), model]));
  const models: Model[] = [];
  const secrets: Record<string, string> = {};
  const cameras = listed.map((one): Camera => {
    const id = newId('camera');
    let model = one.model === '' ? undefined : byKey.get(keyOf(one));
    if (one.model !== '' && !model) {
      model = emptyModel(newId('model'), one.maker, one.model);
      byKey.set(keyOf(model), model);
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
      account: one.user === '' ? null : { user: one.user, secretRef },
      streams: one.paths.map(({ label, path }) => ({ id: newId('stream'), label, path, ...UNKNOWN_STREAM })),
      ...UNPLANNED,
    };
  });
  return { cameras, models, secrets };
}

/** A cell as the preview shows it: never a secret. */
export function cellShown(field: ListField, text: string): string {
  if (field === 'secret' && text !== '') return '••••••••';
  return field === 'url' || field === 'none' ? redactUrl(text) : text;
}
