import type { DemoSite } from '../../contract/server-info.ts';
import { fetchDemo, fetchInfo } from '../api/client.ts';
import { serverAnswered } from '../store/server-slice.ts';
import { siteOpened } from '../store/site-slice.ts';
import { hasSite, isRemoved, lastOpened, listSites, saveIfAbsent } from '../store/site-store.ts';
import { store } from '../store/store.ts';
import { boundTo } from '../vault/camera-places.ts';
import type { Vault } from '../vault/vault-contract.ts';

export interface Boot {
  /** Where the root address leads. */
  readonly firstSiteId: string | null;
}

/**
 * The secrets of the simulated cameras. They are public, and yet go where secrets go: a vault that is kept under a
 * passphrase has them from when it was made.
 */
export async function takeDemoSecrets(vault: Vault): Promise<DemoSite> {
  const demo = await fetchDemo();
  if (vault.state !== 'memory') return demo;
  const { site, secrets } = demo;
  for (const camera of site.cameras)
    for (const account of [camera.account, camera.adminAccount]) {
      const secret = account && secrets[account.secretRef];
      if (!account || secret === undefined || secret === null || vault.hasFor(site.id, account.secretRef)) continue;
      vault.setFor(site.id, account.secretRef, secret, boundTo(site, camera, account.user));
    }
  return demo;
}

/** Keeps the demo site in the browser unless it is there; where nothing can be kept it is opened in this page alone. */
async function keepDemo({ site }: DemoSite): Promise<void> {
  try {
    if (await isRemoved(site.id)) return;
    await saveIfAbsent(site);
  } catch {
    store.dispatch(siteOpened({ site, revision: null }));
  }
}

/**
 * What is asked once, before the first view: which network this is and, in the demo, its site and secrets. A site that is
 * already in the browser is never overwritten.
 */
export async function boot(vault: Vault): Promise<Boot> {
  try {
    const info = await fetchInfo();
    if (info.network === 'simulated') {
      const demo = await takeDemoSecrets(vault);
      await keepDemo(demo);
      store.dispatch(serverAnswered(info));
      if (!(await isRemoved(demo.site.id).catch(() => false))) return { firstSiteId: demo.site.id };
    } else store.dispatch(serverAnswered(info));
  } catch {
    // Without a server nothing can be dialled; the shell says so.
  }
  return { firstSiteId: await whereToBegin() };
}

/** The site that was open last, else the first there is; `null` where there is none. */
export async function whereToBegin(): Promise<string | null> {
  try {
    const last = await lastOpened();
    if (last !== null && (await hasSite(last))) return last;
    return (await listSites())[0]?.id ?? null;
  } catch {
    return null; // the browser's store is blocked: a site can still be begun or opened from a file
  }
}
