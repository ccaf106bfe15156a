import { nameOfModel } from './cards/model-card.ts';
import type { Camera, Site } from './site-types.ts';
import { hasAddress } from './stream-address.ts';

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
