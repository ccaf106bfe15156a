import localforage from 'localforage';
import { type Fault, fault } from '../../core/base/fault.ts';
import { err, type Result } from '../../core/base/result.ts';
import { SITE_FORMAT, type Site } from '../../core/document/site.ts';
import { dropOtherGenerations, type JournalMark, readChunks, writeChunks } from './journal-chunks.ts';
import { newId } from './new-id.ts';
import { documentOfSpill, dropSpill, listSpills } from './spill.ts';

export const store = localforage.createInstance({ name: 'clear-tap', storeName: 'sites' });
const LAST_OPENED = 'last-opened';
export const SITE_KEY = 'site:';
/** The revision of a record, beside it: to compare it, a large site need not be read at every save. */
export const MARK_KEY = 'mark:';
/** A copy that was read and checked whole, kept beside the record that is written to. */
export const GOOD_KEY = 'good:';

/** A site as it lies in the browser. The revision tells two tabs that write to it apart. */
interface SiteRecord {
  readonly revision: number;
  readonly savedAt: string;
  /** Names the change that was written last. */
  readonly change?: string | undefined;
  /** The plan; of older records and of good copies the whole site, its journal within. */
  readonly site: Readonly<Record<string, unknown>>;
  /** How much of the journal lies beside it. */
  readonly journal?: JournalMark | undefined;
}

export interface StoredSite {
  readonly revision: number;
  readonly savedAt: string;
  readonly site: Site;
  /** It holds a change that a page put down as it closed, and that is not in the record yet. */
  readonly isUnsaved: boolean;
  /** The page that put it down; it goes when it is written, or given up. */
  readonly spilledBy?: string;
  /** How much of its journal the store has; `null` when none of it lies there in chunks. */
  readonly journal: JournalMark | null;
}

export interface SiteListing {
  readonly id: string;
  readonly name: string;
}

/** Another tab wrote to this site since it was read here. */
export class ChangedElsewhere extends Error {
  override readonly name = 'ChangedElsewhere';
  constructor(readonly savedAt: string) {
    super('The site was changed in another tab.');
  }
}

export const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

const asMark = (value: unknown): JournalMark | undefined =>
  isObject(value) && typeof value.generation === 'string' && typeof value.length === 'number'
    ? { generation: value.generation, length: value.length }
    : undefined;

/** A record as this version writes it, or a bare site as the first version did. */
export function asRecord(value: unknown): SiteRecord | null {
  if (!isObject(value)) return null;
  if (value.format === SITE_FORMAT) return { revision: 0, savedAt: '', site: value };
  const { revision, savedAt, change, site, journal } = value;
  return typeof revision === 'number' && typeof savedAt === 'string' && isObject(site)
    ? { revision, savedAt, change: typeof change === 'string' ? change : undefined, site, journal: asMark(journal) }
    : null;
}

/** What checks a site as it is opened: the schema and the migrations, which no other part of the page needs. */
export const siteReader = () => import('../../core/document/site-file.ts');

async function readChecked(key: string): Promise<Result<StoredSite, Fault>> {
  const value: unknown = await store.getItem(key);
  if (value === null) return err(fault('site.not-a-site', 'There is no such site in this browser.'));
  const record = asRecord(value);
  if (!record) return err(fault('site.not-a-site', 'Its record in this browser is damaged: it holds no site.'));
  const document = await documentOf(key.slice(key.indexOf(':') + 1), record);
  if (!document)
    return err(fault('site.not-a-site', 'Its record in this browser is damaged: its journal is incomplete.'));
  const { readSite } = await siteReader();
  const read = readSite(document);
  if (!read.ok) return read;
  return {
    ok: true,
    value: { ...record, site: read.value, isUnsaved: false, journal: record.journal ?? null },
  };
}

/** A record with its journal, as a file would hold both; `null` when part of the journal is missing. */
async function documentOf(id: string, record: SiteRecord): Promise<Readonly<Record<string, unknown>> | null> {
  if (!record.journal) return record.site;
  const journal = await readChunks(store, id, record.journal);
  return journal && { ...record.site, journal };
}

/**
 * A change that a page put down as it closed, unless it was written after all. Of several pages each has put down its own:
 * they are offered one after the other, the one that goes with the record first.
 */
async function readSpilled(id: string): Promise<StoredSite | null> {
  const spills = listSpills(id);
  if (spills.length === 0) return null;
  const record = asRecord(await store.getItem(SITE_KEY + id));
  const below = record ? await documentOf(id, record) : null;
  const { readSite } = await siteReader();
  const open = spills.flatMap((spill) => {
    if (record?.change === spill.change) {
      dropSpill(id, spill.page);
      return [];
    }
    const read = readSite(documentOfSpill(spill, below)); // one that cannot be read stays where it is: a newer Clear Tap may have put it down
    return read.ok ? [{ spill, site: read.value }] : [];
  });
  const first = open.find(({ spill }) => spill.revision === record?.revision) ?? open[0];
  if (!first) return null;
  const { spill, site } = first;
  return {
    revision: spill.revision ?? record?.revision ?? 0,
    savedAt: '',
    site,
    isUnsaved: true,
    spilledBy: spill.page,
    journal: record?.journal ?? null,
  };
}

/**
 * A site as it is opened: with what a closed page had no time to write, else as `readStored` gives it. A page that
 * follows another takes the record alone: what was put down beside it belongs to the page that did.
 */
export async function loadSite(id: string): Promise<Result<StoredSite, Fault>> {
  const spilled = await readSpilled(id);
  return spilled ? { ok: true, value: spilled } : readStored(id);
}

/** A stored site, checked like a file from outside. A sound one is kept as the last good copy. */
export async function readStored(id: string): Promise<Result<StoredSite, Fault>> {
  const loaded = await readChecked(SITE_KEY + id);
  if (loaded.ok) store.setItem(GOOD_KEY + id, loaded.value).catch(() => {}); // a full store keeps the older copy
  return loaded;
}

/** The last copy that was whole, for when the record is not. */
export const loadGoodCopy = (id: string): Promise<Result<StoredSite, Fault>> => readChecked(GOOD_KEY + id);

/** One writer at a time, over all tabs; a browser without locks has only its own order. */
export async function alone<T>(id: string, work: () => Promise<T>): Promise<T> {
  return navigator.locks ? navigator.locks.request(`clear-tap:${id}`, work) : work();
}

export interface Written {
  readonly revision: number;
  readonly journal: JournalMark;
}

/**
 * Writes a site over the revision it was read at. `null` writes over whatever is there.
 * @param stored how much of its journal is there already; without it the journal is written anew
 * @throws ChangedElsewhere when another tab has written since; then nothing is written
 */
export function saveSite(
  site: Site,
  readAtRevision: number | null,
  change = '',
  stored: JournalMark | null = null,
): Promise<Written> {
  return alone(site.id, async () => {
    const marked: unknown = await store.getItem(MARK_KEY + site.id);
    let found = typeof marked === 'number' ? marked : 0;
    if (readAtRevision === null || found !== readAtRevision) {
      // Unmarked, or a page was closed between mark and record: the record itself tells.
      const current = asRecord(await store.getItem(SITE_KEY + site.id));
      if (readAtRevision !== null && current && current.revision !== readAtRevision)
        throw new ChangedElsewhere(current.savedAt);
      found = Math.max(found, current?.revision ?? 0);
    }
    return write(site, found + 1, change, stored);
  });
}

/** Writes a site that the browser does not have; one that is there, in whatever state, is left as it is. */
export function saveIfAbsent(site: Site): Promise<void> {
  return alone(site.id, async () => {
    if (!(await hasSite(site.id))) await write(site, 1, '', null);
  });
}

/** The writing itself; its caller is alone. */
async function write(site: Site, revision: number, change: string, stored: JournalMark | null): Promise<Written> {
  const { journal: entries, ...plan } = site;
  // Chunks first: what the record does not count yet is not read.
  const begun = stored ?? { generation: newId('j'), length: 0 };
  const journal = await writeChunks(store, site.id, begun, entries);
  // The mark next: a record that is newer than its mark would be written over.
  await store.setItem(MARK_KEY + site.id, revision);
  await store.setItem(SITE_KEY + site.id, {
    revision,
    savedAt: new Date().toISOString(),
    change,
    site: plan,
    journal,
  });
  if (!stored) await dropOtherGenerations(store, site.id, journal.generation).catch(() => {}); // they only take room
  return { revision, journal };
}

export const hasSite = async (id: string): Promise<boolean> => (await store.getItem(SITE_KEY + id)) !== null;

/** Every site of this browser by name; a damaged one too, so that it can be opened and told. */
export async function listSites(): Promise<readonly SiteListing[]> {
  const sites: SiteListing[] = [];
  await store.iterate((value: unknown, key) => {
    if (!key.startsWith(SITE_KEY)) return;
    const site = asRecord(value)?.site;
    const name = isObject(site) && typeof site.name === 'string' && site.name !== '' ? site.name : 'Damaged record';
    sites.push({ id: key.slice(SITE_KEY.length), name });
  });
  return sites.sort((a, b) => a.name.localeCompare(b.name));
}

export const rememberOpened = (id: string): Promise<unknown> => store.setItem(LAST_OPENED, id);
export const lastOpened = (): Promise<string | null> => store.getItem(LAST_OPENED);

/** A site that somebody removed: it lies aside until it is put back or deleted for ever (`removed-sites.ts`). */
export const REMOVED_KEY = 'removed:';
export const isRemoved = async (id: string): Promise<boolean> => (await store.getItem(REMOVED_KEY + id)) !== null;
