import type { Camera, Site } from '../../core/site/site-types.ts';

export const modelOf = (site: Site, camera: Camera): string => {
  const model = site.models.find(({ id }) => id === camera.modelId);
  return model ? `${model.maker} ${model.model}` : camera.kind === 'handset' ? 'old handset' : 'model not known';
};
