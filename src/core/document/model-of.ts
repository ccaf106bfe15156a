import type { Camera } from './chapters/cameras/camera.ts';
import { nameOfModel } from './chapters/models/model-name.ts';
import type { Site } from './site.ts';
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
