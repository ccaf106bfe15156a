import type { Site } from '../../core/document/site.ts';
import { readSiteFile, SITE_FILE_ENDING, writeSiteFile } from '../../core/document/site-file.ts';

/** Hands a file to the person. */
export function download(name: string, type: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** A name that every file system takes. */
export const fileNameOf = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'site';

export const exportSite = (site: Site): void =>
  download(`${fileNameOf(site.name)}${SITE_FILE_ENDING}`, 'application/json', writeSiteFile(site));

export { readSiteFile };
