import { selectSite } from '../store/site-slice.ts';
import { noteExported, store } from '../store/store.ts';

/** Saves the open site to a file; what the browser could not keep is then safe, and the site may be left. */
export async function exportOpenSite(): Promise<void> {
  const { exportSite } = await import('../ui/site-files.ts');
  exportSite(selectSite(store.getState()));
  noteExported();
}
