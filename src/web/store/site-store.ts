import localforage from 'localforage';
import type { Fault } from '../../core/base/fault.ts';
import { fault } from '../../core/base/fault.ts';
import { err, type Result } from '../../core/base/result.ts';
import type { Site } from '../../core/site/site-types.ts';

const store = localforage.createInstance({ name: 'clear-tap', storeName: 'sites' });
const LAST_OPENED = 'last-opened';
const siteKey = (id: string): string => `site:${id}`;

export interface SiteListing {
  readonly id: string;
  readonly name: string;
}

export const saveSite = (site: Site): Promise<unknown> => store.setItem(siteKey(site.id), site);

/** A stored site, checked like a file from outside. */
export async function loadSite(id: string): Promise<Result<Site, Fault>> {
  const stored = await store.getItem(siteKey(id));
  if (stored === null) return err(fault('site.not-a-site', 'There is no such site in this browser.'));
  const { readSite } = await import('../../core/site/site-file.ts');
  return readSite(stored);
}

export const hasSite = async (id: string): Promise<boolean> => (await store.getItem(siteKey(id))) !== null;

export async function listSites(): Promise<readonly SiteListing[]> {
  const sites: SiteListing[] = [];
  await store.iterate((value: unknown, key) => {
    if (!key.startsWith(siteKey('')) || typeof value !== 'object' || value === null || !('name' in value)) return;
    sites.push({ id: key.slice(siteKey('').length), name: String(value.name) });
  });
  return sites.sort((a, b) => a.name.localeCompare(b.name));
}

export const rememberOpened = (id: string): Promise<unknown> => store.setItem(LAST_OPENED, id);
export const lastOpened = (): Promise<string | null> => store.getItem(LAST_OPENED);
