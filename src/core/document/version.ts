/** Of the site document. A chapter or a field that comes after a release takes the next one, with its step in `migrations/registry.ts`. */
export const SITE_VERSION = 14;
