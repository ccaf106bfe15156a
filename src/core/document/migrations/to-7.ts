import { eachOf, type Migration, type OldDocument } from './migrate.ts';

const noLimits = { longest: null, refused: '' };

/** A card of version 6 of a site, and of version 2 of a file of cards: nobody had asked how it is prepared. */
export const cardTo7 = (card: OldDocument): OldDocument => ({
  ...card,
  onvifPort: null,
  streamSwitch: '',
  factoryLogin: null,
  secretLimits: noLimits,
  hasSideBranch: null,
  reflash: null,
});

/** 7: accounts of those who set it up, another firmware, old handsets, what a secret may be. */
export const to7: Migration = (document) => ({
  ...document,
  version: 7,
  models: eachOf(document.models, cardTo7),
  cameras: eachOf(document.cameras, (camera) => ({ ...camera, adminAccount: null, reflash: null, handset: null })),
  destinations: eachOf(document.destinations, (destination) => ({ ...destination, secretLimits: noLimits })),
});
