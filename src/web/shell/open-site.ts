import { selectSave, selectSite, siteOpened } from '../store/site-slice.ts';
import { loadGoodCopy, loadSite, rememberOpened, saveSite } from '../store/site-store.ts';
import { flushSite, store } from '../store/store.ts';

/** Why the site of an address is not shown. */
export class SiteNotOpened extends Error {
  override readonly name = 'SiteNotOpened';
  constructor(
    message: string,
    readonly siteId: string,
    /** When the last good copy was written; `null` when there is none. */
    readonly goodCopyAt: string | null = null,
    /** The site that was open has changes that are nowhere else. */
    readonly hasUnsaved = false,
  ) {
    super(message);
  }
}

/** Opens the site of an address, once; a site that cannot be opened is named with its reason and the copy there is. */
export async function openSite(siteId: string): Promise<null> {
  const open = selectSite(store.getState());
  if (open.id === siteId) return null;
  await flushSite();
  const save = selectSave(store.getState());
  if (save.status === 'failed' || save.status === 'clash')
    throw new SiteNotOpened(
      `${open.name} has changes that this browser did not keep. Export it first, then open the other site.`,
      siteId,
      null,
      true,
    );
  const loaded = await loadSite(siteId);
  if (!loaded.ok) {
    const good = await loadGoodCopy(siteId);
    throw new SiteNotOpened(loaded.error.message, siteId, good.ok ? good.value.savedAt : null);
  }
  store.dispatch(siteOpened(loaded.value));
  rememberOpened(siteId).catch(() => {}); // only a convenience for the next visit
  return null;
}

/** Puts the last good copy in the place of the damaged record. */
export async function restoreGoodCopy(siteId: string): Promise<void> {
  const good = await loadGoodCopy(siteId);
  if (good.ok) await saveSite(good.value.site, null);
}
