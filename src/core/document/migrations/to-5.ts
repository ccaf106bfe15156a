import { isDocument, type Migration } from './migrate.ts';

/** What version 4 wrote into every site: the year of the north, whatever its latitude. */
const DELIVERED = [0.33, 0.37, 0.41, 0.44, 0.46, 0.48, 0.49, 0.47, 0.44, 0.4, 0.35, 0.33];

/** 5: a clearness that nobody entered is not in the file, so that it follows the latitude. */
export const to5: Migration = (document) => {
  const { sky } = document;
  const isDelivered = isDocument(sky) && JSON.stringify(sky.clearness) === JSON.stringify(DELIVERED);
  return { ...document, version: 5, ...(isDelivered ? { sky: { ...sky, clearness: null } } : {}) };
};
