import { dropOtherGenerations } from './journal-chunks.ts';
import {
  alone,
  asRecord,
  GOOD_KEY,
  hasSite,
  isObject,
  MARK_KEY,
  REMOVED_KEY,
  SITE_KEY,
  type SiteListing,
  store,
} from './site-store.ts';

export interface RemovedSite extends SiteListing {
  readonly removedAt: string;
}

/** Takes a site out of the list. Its record and its journal stay in the browser until somebody deletes them. */
export function removeSite(id: string): Promise<void> {
  return alone(id, async () => {
    const record: unknown = await store.getItem(SITE_KEY + id);
    if (record === null) return;
    await store.setItem(REMOVED_KEY + id, { record, removedAt: new Date().toISOString() });
    await store.removeItem(SITE_KEY + id);
  });
}

/** Puts a removed site back as it was; one that has come in its place since stays. */
export function putBackSite(id: string): Promise<void> {
  return alone(id, async () => {
    const removed: unknown = await store.getItem(REMOVED_KEY + id);
    if (!isObject(removed) || (await hasSite(id))) return;
    await store.setItem(SITE_KEY + id, removed.record);
    await store.removeItem(REMOVED_KEY + id);
  });
}

/** What is deleted is in no store any more. */
export function deleteRemoved(id: string): Promise<void> {
  return alone(id, async () => {
    await store.removeItem(REMOVED_KEY + id);
    if (await hasSite(id)) return;
    for (const key of [MARK_KEY, GOOD_KEY]) await store.removeItem(key + id);
    await dropOtherGenerations(store, id, '');
  });
}

export async function listRemoved(): Promise<readonly RemovedSite[]> {
  const sites: RemovedSite[] = [];
  await store.iterate((value: unknown, key) => {
    if (!key.startsWith(REMOVED_KEY) || !isObject(value)) return;
    const site = asRecord(value.record)?.site;
    const name = typeof site?.name === 'string' && site.name !== '' ? site.name : 'Damaged record';
    const removedAt = typeof value.removedAt === 'string' ? value.removedAt : '';
    sites.push({ id: key.slice(REMOVED_KEY.length), name, removedAt });
  });
  return sites.sort((a, b) => b.removedAt.localeCompare(a.removedAt));
}
