import { type Handlers, itemOf, put, without, words } from '../../command-parts.ts';
import type { Site } from '../../site.ts';
import type { Model } from './model-card.ts';
import { nameOfModel } from './model-name.ts';

export type ModelCommand =
  | { readonly kind: 'putModel'; readonly model: Model }
  /** Cameras of it are then of no model, and no candidate is it. */
  | { readonly kind: 'removeModel'; readonly modelId: string };

export const MODEL_COMMANDS: Handlers<ModelCommand> = {
  putModel: (site, { model }) => ({
    site: { ...site, models: put(site.models, model) },
    log: words('choose', 'site', `Model card of ${nameOfModel(model)} saved`),
  }),
  removeModel: (site, { modelId }) => {
    const model = itemOf(site.models, modelId, 'model');
    const names = (camera: Site['cameras'][number]): boolean =>
      camera.modelId === modelId || camera.candidates.includes(modelId);
    return {
      site: {
        ...site,
        models: without(site.models, modelId),
        cameras: site.cameras.map((camera) =>
          names(camera)
            ? {
                ...camera,
                modelId: camera.modelId === modelId ? null : camera.modelId,
                candidates: camera.candidates.filter((id) => id !== modelId),
              }
            : camera,
        ),
      },
      log: words('choose', 'site', `Model card of ${nameOfModel(model)} removed`),
    };
  },
};
