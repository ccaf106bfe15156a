import { nameOfModel } from '../../core/models/model-card.ts';
import type { Camera, Site } from '../../core/site/site-types.ts';
import { hasAddress } from '../../core/site/stream-address.ts';

export const modelOf = (site: Site, camera: Camera): string => {
  const model = site.models.find(({ id }) => id === camera.modelId);
  return model
    ? nameOfModel(model)
    : camera.kind === 'handset'
      ? 'old handset'
      : hasAddress(camera)
        ? 'model not known'
        : 'no model chosen';
};
