import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { wordsEntry } from '../../../tests/support/sites.ts';
import type { Entry } from '../../core/document/chapters/journal/entry.ts';
import { dropOtherGenerations, goesOn, type JournalMark, readChunks, writeChunks } from './journal-chunks.ts';
import { documentOfSpill } from './spill.ts';

/** A store in memory that counts what it is given. */
function memory() {
  const items = new Map<string, unknown>();
  let writes = 0;
  return {
    items,
    writes: () => writes,
    getItem: async (key: string) => items.get(key) ?? null,
    setItem: async (key: string, value: unknown) => {
      writes += 1;
      items.set(key, structuredClone(value));
    },
    removeItem: async (key: string) => void items.delete(key),
    keys: async () => [...items.keys()],
  };
}
const entry = (at: number): Entry => wordsEntry(`e-${at}`);
const journal = (length: number): readonly Entry[] => Array.from({ length }, (_, at) => entry(at));
const NEW: JournalMark = { generation: 'g', length: 0 };

test('a journal that grows in any steps is read back as it is, and an entry more writes one chunk', () =>
  fc.assert(
    fc.asyncProperty(fc.array(fc.integer({ min: 0, max: 450 }), { maxLength: 6 }), async (steps) => {
      const store = memory();
      let mark = NEW;
      let length = 0;
      for (const step of steps) {
        length += step;
        mark = await writeChunks(store, 's', mark, journal(length));
        expect(await readChunks(store, 's', mark)).toEqual(journal(length));
      }
      const before = store.writes();
      mark = await writeChunks(store, 's', mark, journal(length + 1));
      expect(store.writes() - before).toBe(1);
      expect(await readChunks(store, 's', mark)).toHaveLength(length + 1);
    }),
    runs(30),
  ));

test('what a page wrote and did not come to count is not read; a chunk that is missing is told', async () => {
  const store = memory();
  const mark = await writeChunks(store, 's', NEW, journal(250));
  await writeChunks(store, 's', mark, journal(300)); // and then it was gone, before its record was written
  expect(await readChunks(store, 's', mark)).toEqual(journal(250));
  store.items.delete('journal:s:g:0');
  expect(await readChunks(store, 's', mark)).toBeNull();
});

test('a generation before goes, and nothing else', async () => {
  const store = memory();
  await writeChunks(store, 's', { generation: 'old', length: 0 }, journal(3));
  await writeChunks(store, 's', NEW, journal(3));
  await writeChunks(store, 'other', { generation: 'old', length: 0 }, journal(3));
  await dropOtherGenerations(store, 's', 'g');
  expect([...store.items.keys()].sort()).toEqual(['journal:other:old:0', 'journal:s:g:0']);
});

test('whether a journal goes on is told by its ends', () => {
  const long = journal(5);
  expect(goesOn([], long)).toBe(true);
  expect(goesOn(long.slice(0, 3), long)).toBe(true);
  expect(goesOn(long, long.slice(0, 3))).toBe(false);
  expect(goesOn(journal(5), [entry(9), ...long.slice(1)])).toBe(false);
});

const head = { revision: 1, change: 'c' };
test.each([
  {
    why: 'an entry alone: the plan is that of the record',
    spill: { ...head, plan: null, entries: [entry(2)], isWhole: false },
    is: { name: 'written', journal: [entry(0), entry(1), entry(2)] },
  },
  {
    why: 'a plan, over a record that another tab went on with',
    spill: { ...head, plan: { name: 'typed' }, entries: [entry(1), entry(7)], isWhole: false },
    is: { name: 'typed', journal: [entry(0), entry(1), entry(7)] },
  },
  {
    why: 'a condensed journal: all of it',
    spill: { ...head, plan: null, entries: [entry(9)], isWhole: true },
    is: { name: 'written', journal: [entry(9)] },
  },
  { why: 'one of an older page: the site whole', spill: { ...head, site: { name: 'old' } }, is: { name: 'old' } },
])('what a closing page put down: $why', ({ spill, is }) =>
  expect(documentOfSpill(spill, { name: 'written', journal: [entry(0), entry(1)] })).toEqual(is),
);
