import type { Camera } from '../document/chapters/cameras/camera.ts';
import { nameOfModel } from '../document/chapters/models/model-name.ts';
import type { Site } from '../document/site.ts';
import { hasAddress } from '../document/stream-address.ts';

export const modelOf = (site: Site, camera: Camera): string => {
  const model = site.models.find(({ id }) => id === camera.modelId);
  return model
    ? nameOfModel(model)
    : camera.kind === 'handset'
      ? 'old phone'
      : hasAddress(camera)
        ? 'model not chosen'
        : 'no model card chosen';
};
