import type { ServerInfo } from '../contract/server-info.ts';
import { fetchDemo, fetchInfo } from './api/client.ts';
import { hasSite, lastOpened, listSites, saveSite } from './store/site-store.ts';
import type { Vault } from './vault/vault.ts';

export interface Boot {
  /** `null` when the server does not answer: the site can still be read and planned. */
  readonly info: ServerInfo | null;
  /** Where the root address leads. */
  readonly firstSiteId: string | null;
}

/**
 * What is asked once, before the first view: which network this is and, in the demo, its site and secrets. A site that is
 * already in the browser is never overwritten.
 */
export async function boot(vault: Vault): Promise<Boot> {
  let info: ServerInfo | null = null;
  try {
    info = await fetchInfo();
    if (info.network === 'simulated') {
      const demo = await fetchDemo();
      for (const [secretRef, secret] of Object.entries(demo.secrets)) vault.set(secretRef, secret);
      if (!(await hasSite(demo.site.id))) await saveSite(demo.site);
      return { info, firstSiteId: demo.site.id };
    }
  } catch {
    // Without a server nothing can be dialled; the shell says so.
  }
  const last = await lastOpened();
  if (last !== null && (await hasSite(last))) return { info, firstSiteId: last };
  return { info, firstSiteId: (await listSites())[0]?.id ?? null };
}
