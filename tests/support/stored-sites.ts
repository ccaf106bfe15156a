import type { Page } from '@playwright/test';

/** Every site of the browser's store as a file would hold it: each plan with the chunks of its journal. */
export const storedSites = (page: Page): Promise<readonly unknown[]> =>
  page.evaluate(
    () =>
      new Promise<unknown[]>((resolve, reject) => {
        const opening = indexedDB.open('clear-tap');
        opening.onerror = () => reject(opening.error);
        opening.onsuccess = () => {
          const sites = opening.result.transaction('sites').objectStore('sites');
          const [keys, values] = [sites.getAllKeys(), sites.getAll()];
          values.onerror = () => reject(values.error);
          values.onsuccess = () => {
            opening.result.close();
            const all = new Map(keys.result.map((key, at) => [String(key), values.result[at]]));
            resolve(
              [...all].flatMap(([key, record]) => {
                if (!key.startsWith('site:')) return [];
                const { site, journal } = record;
                if (!journal) return [site];
                const entries: unknown[] = [];
                for (let at = 0; entries.length < journal.length; at++) {
                  const chunk = all.get(`journal:${key.slice('site:'.length)}:${journal.generation}:${at}`);
                  if (!chunk) break;
                  entries.push(...chunk);
                }
                return [{ ...site, journal: entries.slice(0, journal.length) }];
              }),
            );
          };
        };
      }),
  );
