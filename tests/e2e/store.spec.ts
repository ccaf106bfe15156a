import { alone, expect, type Page, test } from './browser.ts';
import { askForSite, beginSite, type DemoServer, exportSite, openCamera, probeUntilPlays, startDemo } from './steps.ts';

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
  await bar.getByRole('button', { name: 'Use this tab’s version' }).click();
  await expect(bar).toHaveCount(0);
  await expect.poll(() => storedPath(first)).toBe('/theirs');

  await setPath(first, '/again'); // the first slept through that too: the sleeper cannot tell it
  await expect(first.getByRole('alert').filter({ hasText: 'another tab' })).toBeVisible();
  await first.getByRole('button', { name: 'Use the other tab’s version' }).click();
  await expect(path(first)).toHaveValue('/theirs');
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
  await expect(page.getByRole('alert').filter({ hasText: 'could not save' })).toBeVisible();

  // It is not left while its changes are nowhere else; once they are in a file it may be.
  await askForSite(page, 'Quern House');
  await expect(
    page.getByText('Alder Mill has changes that this browser could not save.', { exact: false }),
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
    await expect(page.getByRole('alert').filter({ hasText: 'stopped during the probe' })).toBeVisible();
    await expect(page.getByText('Server not running')).toBeVisible();
    second = await startDemo(first.port);
    await expect(page.getByText('The server answers again.')).toBeVisible({ timeout: 15_000 });
    await probeUntilPlays(page);
  } finally {
    first.process.kill('SIGKILL');
    second?.process.kill('SIGTERM');
  }
});
