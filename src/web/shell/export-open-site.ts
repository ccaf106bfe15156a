import { selectSite } from '../store/site-slice.ts';
import { noteExported, store } from '../store/store.ts';
import { download, fileNameOf } from '../ui/download.ts';

/** Saves the open site to a file; what the browser could not keep is then safe, and the site may be left. */
export async function exportOpenSite(): Promise<void> {
  const { SITE_FILE_ENDING, writeSiteFile } = await import('../../core/document/site-file.ts');
  const site = selectSite(store.getState());
  download(`${fileNameOf(site.name)}${SITE_FILE_ENDING}`, 'application/json', writeSiteFile(site));
  noteExported();
}
