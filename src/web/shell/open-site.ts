import { selectSite, siteOpened } from '../store/site-slice.ts';
import { loadGoodCopy, loadSite, rememberOpened, saveSite } from '../store/site-store.ts';
import { leaveSite, store, whenJudged } from '../store/store.ts';

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

/** Why a site is not left: its last changes would be lost. Exporting it makes them safe. */
export const unkeptWords = (name: string): string =>
  `${name} has changes that this browser could not save. Export it first; then leave it.`;

/** Opens the site of an address, once; a site that cannot be opened is named with its reason and the copy there is. */
export async function openSite(siteId: string): Promise<null> {
  const open = selectSite(store.getState());
  if (open.id === siteId) {
    await whenJudged(siteId);
    return null;
  }
  if (!(await leaveSite())) throw new SiteNotOpened(unkeptWords(open.name), siteId, null, true);
  const loaded = await loadSite(siteId);
  if (!loaded.ok) {
    const good = await loadGoodCopy(siteId);
    throw new SiteNotOpened(loaded.error.message, siteId, good.ok ? good.value.savedAt : null);
  }
  store.dispatch(siteOpened(loaded.value));
  await whenJudged(siteId);
  rememberOpened(siteId).catch(() => {}); // only a convenience for the next visit
  return null;
}

/** Puts the last good copy in the place of the damaged record. */
export async function restoreGoodCopy(siteId: string): Promise<void> {
  const good = await loadGoodCopy(siteId);
  if (good.ok) await saveSite(good.value.site, null);
}
