import type { Entry } from '../../core/document/chapters/journal/entry.ts';

/** How much of a journal is in the store. A journal that was condensed begins a new generation beside the old one. */
export interface JournalMark {
  readonly generation: string;
  readonly length: number;
}

/** Entries of one chunk: small enough to be written again with each entry, large enough to be few. */
const CHUNK = 200;
const PREFIX = 'journal:';
const keyOf = (siteId: string, generation: string, chunk: number): string =>
  `${PREFIX}${siteId}:${generation}:${chunk}`;

/** What of the browser's store is needed here. */
interface Store {
  getItem(key: string): Promise<unknown>;
  setItem(key: string, value: unknown): Promise<unknown>;
  removeItem(key: string): Promise<void>;
  keys(): Promise<string[]>;
}

/** Writes what a journal has beyond its mark: the last chunk that was begun, and those after it. */
export async function writeChunks(
  store: Store,
  siteId: string,
  { generation, length }: JournalMark,
  journal: readonly Entry[],
): Promise<JournalMark> {
  if (journal.length > length)
    for (let chunk = Math.floor(length / CHUNK); chunk * CHUNK < journal.length; chunk++)
      await store.setItem(keyOf(siteId, generation, chunk), journal.slice(chunk * CHUNK, (chunk + 1) * CHUNK));
  return { generation, length: journal.length };
}

/** Entries up to a mark; what a page wrote and did not come to count is not among them. `null` where some are missing. */
export async function readChunks(store: Store, siteId: string, mark: JournalMark): Promise<readonly unknown[] | null> {
  const chunks = await Promise.all(
    Array.from({ length: Math.ceil(mark.length / CHUNK) }, (_, chunk) =>
      store.getItem(keyOf(siteId, mark.generation, chunk)),
    ),
  );
  const entries = chunks.flatMap((chunk): readonly unknown[] => (Array.isArray(chunk) ? chunk : []));
  return entries.length >= mark.length ? entries.slice(0, mark.length) : null;
}

/** Lets go the chunks of generations before; one that cannot be let go only takes room. */
export async function dropOtherGenerations(store: Store, siteId: string, generation: string): Promise<void> {
  const own = `${PREFIX}${siteId}:`;
  for (const key of await store.keys())
    if (key.startsWith(own) && !key.startsWith(`${own}${generation}:`)) await store.removeItem(key);
}

/** Whether a journal goes on where what was written ended: the same entries up to there. */
export const goesOn = (written: readonly Entry[], journal: readonly Entry[]): boolean =>
  written.length === 0 ||
  (written.length <= journal.length && written[0] === journal[0] && written.at(-1) === journal[written.length - 1]);
