import { eachOf, type Migration } from './migrate.ts';

/** 2: model cards say how many clients are served at once. */
export const to2: Migration = (document) => ({
  ...document,
  version: 2,
  models: eachOf(document.models, (model) => ({ ...model, sessions: null })),
});
