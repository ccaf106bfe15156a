import { type Handlers, put, words } from '../../command-parts.ts';
import { type Model, nameOfModel } from './model-card.ts';

export type ModelCommand = { readonly kind: 'putModel'; readonly model: Model };

export const MODEL_COMMANDS: Handlers<ModelCommand> = {
  putModel: (site, { model }) => ({
    site: { ...site, models: put(site.models, model) },
    log: words('choose', 'site', `Model card of ${nameOfModel(model)} kept`),
  }),
};
