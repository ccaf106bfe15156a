import { type BrowserContext, test as base } from '@playwright/test';

/** For a test that changes the browser's context itself, such as its clock or the kind of its screen. */
export { expect, type Page, test as apart } from '@playwright/test';

interface Kept {
  readonly context: BrowserContext;
  /** Closes what a test left open, and empties what it left in the store. */
  clear(): Promise<void>;
}

/** Runs in the page: as it closes it keeps what it has to itself. What it put down would wait for the next test. */
function putNothingDown(): void {
  for (const event of ['pagehide', 'beforeunload', 'visibilitychange'])
    globalThis.addEventListener(event, (one) => one.stopImmediatePropagation(), { capture: true });
}

/** Runs in the page: lets go everything that its origin keeps. */
async function emptyStores(): Promise<void> {
  localStorage.clear();
  for (const { name = '' } of await indexedDB.databases())
    await new Promise<void>((resolve, reject) => {
      const request = indexedDB.deleteDatabase(name);
      request.onsuccess = () => resolve();
      request.onerror = () => reject(request.error);
    });
}

/**
 * Tests of a worker share one context, and with it what the browser has compiled: that is half of opening the page. Each
 * test has pages of its own, and begins with an empty store.
 */
export const test = base.extend<object, { readonly kept: Kept }>({
  kept: [
    async ({ browser }, use, { project }) => {
      const { viewport = null, permissions = [], reducedMotion = null, baseURL = '' } = project.use;
      const context = await browser.newContext({ viewport, permissions, reducedMotion, baseURL });
      const blank = await context.newPage();
      await blank.goto('/api/health'); // of the page's origin, and without the page
      await use({
        context,
        clear: async () => {
          for (const page of context.pages().filter((one) => one !== blank)) {
            await page.evaluate(putNothingDown).catch(() => {}); // one that has crashed puts nothing down either
            await page.close();
          }
          await blank.evaluate(emptyStores);
        },
      });
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ kept }, use) => {
    await use(kept.context);
    await kept.clear();
  },
});
