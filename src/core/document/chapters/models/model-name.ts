import type { Model } from './model-card.ts';

export const nameOfModel = ({ maker, model }: Pick<Model, 'maker' | 'model'>): string => `${maker} ${model}`.trim();
