import { eachOf, type Migration, type OldDocument } from './migrate.ts';

/** A card of version 8 of a site, and of version 3 of a file of cards: nobody had asked how many pictures hang off it. */
export const cardTo9 = (card: OldDocument): OldDocument => ({ ...card, channels: null, learnedFrom: [] });

/** 9: where ONVIF listens, what a head comes back to, what cards have learnt. */
export const to9: Migration = (document) => ({
  ...document,
  version: 9,
  models: eachOf(document.models, cardTo9),
  cameras: eachOf(document.cameras, (camera) => ({
    ...camera,
    onvifPort: null,
    steering: { presets: [], tours: [] },
  })),
});
