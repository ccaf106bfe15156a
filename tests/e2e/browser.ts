import { type BrowserContext, test as base, type Page } from '@playwright/test';

/** For a test that changes the browser's context itself, such as its clock or the kind of its screen. */
export { expect, type Page, test as apart } from '@playwright/test';

interface Kept {
  readonly context: BrowserContext;
  /** The page that tests have one after the other. */
  page(): Promise<Page>;
  /** Closes what a test left open, and empties what it left in the store. */
  clear(): Promise<void>;
}

/** Of the page's origin, and without the page. */
const BLANK = '/api/health';

/** Runs in the page: as it is left it keeps what it has to itself. What it put down would wait for the next test. */
function putNothingDown(): void {
  for (const event of ['pagehide', 'beforeunload', 'visibilitychange'])
    globalThis.addEventListener(event, (one) => one.stopImmediatePropagation(), { capture: true });
}

/** Runs in the page: lets go everything that its origin keeps. */
async function emptyStores(): Promise<void> {
  localStorage.clear();
  sessionStorage.clear();
  for (const { name = '' } of await indexedDB.databases())
    await new Promise<void>((resolve, reject) => {
      const request = indexedDB.deleteDatabase(name);
      request.onsuccess = () => resolve();
      request.onerror = () => reject(request.error);
    });
}

const originOf = (page: Page): string => (page.url().startsWith('http') ? new URL(page.url()).origin : '');
const answers = (context: BrowserContext, origin: string): Promise<boolean> =>
  context.request.get(origin + BLANK).then(
    (response) => response.ok(),
    () => false,
  );
async function emptied(page: Page, origin: string): Promise<void> {
  await page.goto(origin + BLANK);
  await page.evaluate(emptyStores);
}

/**
 * Tests of a worker share one page and its process, and with it what the browser has compiled and fetched: that is half of
 * opening it. Each test opens it anew, with an empty store.
 */
export const test = base.extend<object, { readonly kept: Kept }>({
  kept: [
    async ({ browser }, use, { project }) => {
      const { viewport = null, permissions = [], reducedMotion = null, baseURL = '' } = project.use;
      const context = await browser.newContext({ viewport, permissions, reducedMotion, baseURL });
      let shared = await context.newPage();
      const page = async (): Promise<Page> => {
        if (shared.isClosed()) shared = await context.newPage();
        return shared;
      };
      const clear = async (): Promise<void> => {
        const left = await page();
        for (const one of context.pages()) await one.evaluate(putNothingDown).catch(() => {}); // one that has crashed puts nothing down either
        for (const one of context.pages().filter((other) => other !== left)) await one.close();
        if (viewport) await left.setViewportSize(viewport);
        await left.emulateMedia({ colorScheme: null });
        // where a test had a server of its own, what is kept lies under that address; it may be gone by now
        const elsewhere = originOf(left);
        if (elsewhere !== baseURL && (await answers(context, elsewhere))) await emptied(left, elsewhere);
        await emptied(left, baseURL);
      };
      await use({ context, page, clear });
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ kept }, use) => {
    await use(kept.context);
    await kept.clear();
  },
  // `context` first: its clearing comes after the test
  page: async ({ context: _, kept }, use) => use(await kept.page()),
});

/** For a test that lays something of its own under the page: a route, a script, a clock, an ear. */
export const alone = test.extend({
  page: async ({ context }, use) => use(await context.newPage()),
});
