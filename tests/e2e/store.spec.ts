import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { alone, expect, type Page, test } from './browser.ts';
import {
  askForSite,
  beginSite,
  type DemoServer,
  exportSite,
  openCamera,
  probeUntilPlays,
  sitesReadBack,
  startDemo,
  toStation,
} from './steps.ts';

const fixture = (name: string): string => join(import.meta.dirname, '../fixtures/sites', name);

const path = (page: Page) => page.getByLabel('Path', { exact: true });
async function setPath(page: Page, text: string): Promise<void> {
  await path(page).fill(text);
  await path(page).blur();
}
/** What the browser has of the demo site, straight from its store. */
const stored = (page: Page): Promise<{ revision: number; site: { cameras: { streams: { path: string }[] }[] } }> =>
  page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const opening = indexedDB.open('clear-tap');
        opening.onsuccess = () => {
          const reading = opening.result.transaction('sites').objectStore('sites').get('site:alder-mill');
          reading.onsuccess = () => {
            opening.result.close();
            resolve(reading.result);
          };
          reading.onerror = () => reject(reading.error);
        };
        opening.onerror = () => reject(opening.error);
      }),
  );
const storedPath = async (page: Page): Promise<string | undefined> =>
  (await stored(page)).site.cameras[0]?.streams[0]?.path;

test('a change is written soon, and at once when the page is hidden', async ({ page }) => {
  await openCamera(page, 'Sluice rail');
  await setPath(page, '/a');
  await expect.poll(() => storedPath(page)).toBe('/a');
  await setPath(page, '/b');
  await page.evaluate(() => globalThis.dispatchEvent(new Event('pagehide')));
  await expect.poll(() => storedPath(page), { intervals: [30] }).toBe('/b');
});

test('two tabs: the one at rest follows, and two that both changed are never written over silently', async ({
  context,
}) => {
  const first = await context.newPage();
  const second = await context.newPage();
  await Promise.all([openCamera(first, 'Sluice rail'), openCamera(second, 'Sluice rail')]);
  await setPath(first, '/from-first');
  await expect(path(second)).toHaveValue('/from-first');

  // A tab that slept through the other’s message: both begin from the same revision.
  const sleeper = await context.newPage();
  await sleeper.addInitScript(() => {
    Reflect.deleteProperty(globalThis, 'BroadcastChannel');
  });
  await openCamera(sleeper, 'Sluice rail');
  await setPath(first, '/mine');
  await expect.poll(() => storedPath(first)).toBe('/mine');
  await setPath(sleeper, '/theirs');
  const bar = sleeper.getByRole('alert').filter({ hasText: 'was also changed in another tab' });
  await expect(bar).toBeVisible();
  expect(await storedPath(first)).toBe('/mine');
  await bar.getByRole('button', { name: 'Keep this tab’s' }).click();
  await expect(bar).toHaveCount(0);
  await expect.poll(() => storedPath(first)).toBe('/theirs');

  await setPath(first, '/again'); // the first slept through that too: the sleeper cannot tell it
  await expect(first.getByRole('alert').filter({ hasText: 'another tab' })).toBeVisible();
  await first.getByRole('button', { name: 'Take the other tab’s' }).click();
  await expect(path(first)).toHaveValue('/theirs');
});

alone('a full store: the page says so, loses nothing, and keeps all once there is room', async ({ page }) => {
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (...args) {
      if (Reflect.get(globalThis, 'isFull') === true) throw new DOMException('no room', 'QuotaExceededError');
      return put.apply(this, args);
    };
  });
  const setFull = (isFull: boolean) => page.evaluate((value) => void Reflect.set(globalThis, 'isFull', value), isFull);
  await openCamera(page, 'Sluice rail');
  await expect.poll(() => storedPath(page)).toBe('/live/main');
  await setFull(true);
  await setPath(page, '/kept');
  const bar = page.getByRole('alert').filter({ hasText: 'store is full' });
  await expect(bar).toBeVisible();
  await expect(path(page)).toHaveValue('/kept');
  expect(await exportSite(page)).toContain('"/kept"');
  await setFull(false);
  await setPath(page, '/kept/too');
  await expect(bar).toHaveCount(0);
  await expect.poll(() => storedPath(page)).toBe('/kept/too');
});

alone('a blocked store: the site is worked on in the page, and can be exported', async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(globalThis, 'indexedDB', { get: () => undefined });
    Object.defineProperty(globalThis, 'localStorage', {
      get: () => {
        throw new DOMException('blocked', 'SecurityError');
      },
    });
  });
  await openCamera(page, 'Sluice rail');
  await setPath(page, '/in-the-page');
  await expect(page.getByRole('alert').filter({ hasText: 'could not keep' })).toBeVisible();

  // It is not left while its changes are nowhere else; once they are in a file it may be.
  await askForSite(page, 'Quern House');
  await expect(
    page.getByText('Alder Mill has changes that this browser did not keep.', { exact: false }),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  expect(await exportSite(page)).toContain('"/in-the-page"');
  await beginSite(page, 'Quern House');
  await expect(page.getByRole('heading', { name: 'Add the first camera' })).toBeVisible();
});

test('a damaged record: its reason is told, and the last good copy is offered', async ({ page }) => {
  await openCamera(page, 'Sluice rail');
  await setPath(page, '/before');
  await expect.poll(() => storedPath(page)).toBe('/before');
  await page.reload();
  await expect(path(page)).toHaveValue('/before');
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const opening = indexedDB.open('clear-tap');
        opening.onsuccess = () => {
          const sites = opening.result.transaction('sites', 'readwrite').objectStore('sites');
          const reading = sites.get('site:alder-mill');
          reading.onsuccess = () => {
            reading.result.site.cameras[0].ports = 'damaged';
            sites.put(reading.result, 'site:alder-mill').onsuccess = () => resolve();
          };
        };
      }),
  );
  await page.reload();
  await expect(page.getByRole('heading', { name: 'This site cannot be opened' })).toBeVisible();
  await expect(page.getByText('cameras[0].ports', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: /^Open the last good copy/ }).click();
  await page.getByRole('link', { name: 'Sluice rail', exact: true }).click();
  await expect(path(page)).toHaveValue('/before');
});

/** The databases of a browser as another build left them. */
interface Dump {
  readonly name: string;
  readonly version: number;
  readonly stores: Readonly<Record<string, Readonly<Record<string, unknown>>>>;
}

test('a browser’s store as the build before wrote it opens: what was probed, tapped and handed over is there', async ({
  page,
}) => {
  const dump: readonly Dump[] = JSON.parse(await readFile(fixture('store-v3.json'), 'utf8'));
  await page.goto('/api/health');
  await page.evaluate(
    (databases) =>
      Promise.all(
        databases.map(
          ({ name, version, stores }) =>
            new Promise<void>((resolve, reject) => {
              const opening = indexedDB.open(name, version);
              opening.onerror = () => reject(opening.error);
              opening.onupgradeneeded = () => {
                for (const store of Object.keys(stores)) opening.result.createObjectStore(store);
              };
              opening.onsuccess = () => {
                const writing = opening.result.transaction(Object.keys(stores), 'readwrite');
                for (const [store, items] of Object.entries(stores))
                  for (const [key, value] of Object.entries(items)) writing.objectStore(store).put(value, key);
                writing.oncomplete = () => {
                  opening.result.close();
                  resolve();
                };
              };
            }),
        ),
      ),
    dump,
  );
  await page.goto('/');
  // All that it asked for then is done; how its address stays, nobody had been asked.
  await expect(page.getByRole('row', { name: /Sluice rail.*Say how its address stays/ })).toBeVisible();
  await page.getByRole('link', { name: 'Logbook' }).click();
  await expect(page.getByText(/^Sluice rail main probed: works/)).toBeVisible();
  await expect(page.getByText('Sluice rail handed over to Loft store')).toBeVisible();
  // It is worked on, and kept in the new way.
  await page.getByRole('link', { name: 'Round' }).click();
  await page.getByRole('link', { name: 'Boot room', exact: true }).click();
  await toStation(page, 'Tap');
  await setPath(page, '/moved');
  await sitesReadBack(page);
  await page.reload();
  await expect(path(page)).toHaveValue('/moved');
});

test('the server is killed in the middle of a probe: the page says so, and goes on when it is back', async ({
  page,
}) => {
  const first = await startDemo();
  let second: DemoServer | null = null;
  try {
    await page.goto(first.address);
    await page.getByRole('link', { name: 'Sluice rail', exact: true }).click();
    await probeUntilPlays(page);
    first.process.kill('SIGKILL');
    await expect(page.getByRole('alert').filter({ hasText: 'went away during the probe' })).toBeVisible();
    await expect(page.getByText('Server not running')).toBeVisible();
    second = await startDemo(first.port);
    await expect(page.getByText('The server answers again.')).toBeVisible({ timeout: 15_000 });
    await probeUntilPlays(page);
  } finally {
    first.process.kill('SIGKILL');
    second?.process.kill('SIGTERM');
  }
});
