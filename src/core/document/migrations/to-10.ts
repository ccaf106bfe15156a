import { eachOf, type Migration } from './migrate.ts';

/** 10: how RTSP comes from a camera, and which sound a destination takes. */
export const to10: Migration = (document) => ({
  ...document,
  version: 10,
  cameras: eachOf(document.cameras, (camera) => ({ ...camera, line: 'plain' })),
  destinations: eachOf(document.destinations, (destination) => ({ ...destination, sounds: [] })),
});
