import { expect, type Page, apart as test } from './browser.ts';
import { type RealWorld, startForReal } from './steps.ts';

// One camera, from an empty site to handed over, by keys alone. Text that is typed is not counted; every key beside it is.

// One page and one count through all of it.
test.describe.configure({ mode: 'serial' });
let world: RealWorld;
let page: Page;
let keys: ReturnType<typeof keyboardOf>;
test.beforeAll(async ({ browser }) => {
  world = await startForReal();
  page = await browser.newPage();
  keys = keyboardOf(page);
});
test.afterAll(async () => {
  await page.close();
  world.end();
});

const MOST_KEYS = 90;

/** A keyboard that counts, and that looks after each key whether the focus is still somewhere. */
function keyboardOf(page: Page) {
  let count = 0;
  const isSomewhere = (): Promise<boolean> =>
    page.evaluate(() => document.activeElement !== null && document.activeElement !== document.body);
  return {
    count: () => count,
    async press(...keys: readonly string[]): Promise<void> {
      for (const key of keys) {
        await page.keyboard.press(key);
        count += 1;
        await expect.poll(isSomewhere, { message: `the focus after ${key}, key ${count}` }).toBe(true);
      }
    },
    type: (text: string) => page.keyboard.type(text),
    /** What has the focus, as a screen reader would name it. */
    async at(name: string | RegExp): Promise<void> {
      const focused = page.locator(':focus');
      await expect(focused).toHaveAccessibleName(name);
    },
    async tabTo(name: string | RegExp, most = 14): Promise<void> {
      for (let tabs = 0; tabs < most; tabs++) {
        await this.press('Tab');
        const own = await page
          .locator(':focus')
          .evaluate(
            (one) =>
              (one as HTMLInputElement).labels?.[0]?.textContent ??
              one.getAttribute('aria-label') ??
              one.textContent ??
              '',
          );
        if (typeof name === 'string' ? own.trim() === name : name.test(own)) return;
      }
      throw new Error(`${name} is not within ${most} Tabs`);
    },
  };
}

// Who will draw it, and what will feed it, from anywhere.
async function find(text: string): Promise<void> {
  await keys.press('/');
  await keys.at('Find');
  await keys.type(text);
  await keys.press('Enter');
}

test('one camera by keys alone, from an empty site to chosen and fed', async () => {
  await page.goto(world.address);
  await keys.at('Name of the site');
  await keys.type('Barley Farm');
  await keys.press('Enter');
  // Begun, the focus is on the heading of what comes.
  await keys.at('Add the first camera');
  await keys.press('Tab');
  await keys.type('Gate');
  await keys.press('Tab');
  await keys.type(world.urls[0]?.[0] ?? '');
  await keys.press('Enter');
  await keys.at('Gate');

  await find('New destination');
  await keys.at('Name');
  await keys.type('Attic store');
  await keys.press('Tab', 'Tab');
  await keys.type('H.264');
  await keys.press('Enter');
  await keys.at('Gate');
  await find('New gear');
  await keys.at('Kind');
  await keys.press('Tab');
  await keys.type('Barn switch');
  await keys.press('Enter');
  await keys.at('Gate');

  // Choose: the need as it is offered, a card in ten fields, the model.
  await find('Gate: Choose');
  await expect(page.getByRole('button', { name: 'Enter what it must show' })).toBeVisible();
  await keys.at('Gate');
  await keys.press('a');
  await keys.at('Level');
  await keys.press('Tab', 'Enter');
  await expect(page.getByText(/^Recognise a person at 8 m/)).toBeVisible();
  await keys.press('a');
  await keys.tabTo('Write a model card');
  await keys.press('Enter');
  await expect(page.getByRole('dialog', { name: 'New model card' })).toBeVisible();
  await keys.tabTo('Make');
  await keys.type('Ostrel');
  await keys.press('Tab');
  await keys.type('Dome 2');
  await keys.press('Tab', 'Tab');
  await keys.type('H.264');
  await keys.press('Tab');
  await keys.type('1280×720');
  await keys.press('Tab', 'Tab');
  await keys.type('60°');
  await keys.press('Tab');
  await keys.type('802.3af');
  await keys.press('Tab');
  await keys.type('4 W');
  await keys.press('Tab');
  await keys.type('6.5');
  await keys.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await keys.press('a');
  await expect(page.getByText('Ostrel Dome 2 is chosen.')).toBeVisible();

  // Power: over the network cable from the switch, twenty metres.
  await find('Gate: Power');
  await keys.at('Gate');
  await keys.tabTo('Power source');
  await keys.press('n');
  await keys.press('Tab', 'ArrowDown');
  await keys.tabTo('Length, m', 5);
  await keys.type('20 m');
  await keys.press('Enter');
  await expect(page.getByText('as typed')).toBeVisible();
  await keys.press('Escape');
  await keys.at('Power source');
});

test('by keys alone it is probed, tapped, mended and handed over: ninety in all, at most', async () => {
  await find('Gate: Tap');
  await expect(page.getByRole('button', { name: /^Probe/ })).toBeVisible();
  await keys.at('Gate');
  await keys.press('p');
  await expect(page.getByRole('region', { name: 'Facts' })).toBeVisible({ timeout: 15_000 });
  await keys.press('t');
  await expect(page.getByRole('link', { name: /Its sheet for Attic store/ })).toBeVisible();

  // What the tap found missing is mended where it is said: the recorder is joined to the switch.
  await find('Gate: Power');
  await keys.at('Gate');
  await expect(page.getByRole('button', { name: /^Link Attic store/ }).first()).toBeVisible();
  await keys.press('m');
  await expect(
    page.getByRole('region', { name: 'Wi-Fi and links' }).getByText('Barn switch – Attic store'),
  ).toBeVisible();

  await find('Gate: Hand over');
  await expect(page.getByRole('button', { name: /^Entered at Attic store/ })).toBeVisible();
  await keys.at('Gate');
  await keys.press('a');
  await expect(page.getByText('Entered at Attic store, with this address.')).toBeVisible();
  await keys.press('r');
  await keys.at('Cameras');
  await expect(page.getByRole('row', { name: /Gate/ })).toContainText('Open its sheet');
  expect(keys.count()).toBeLessThanOrEqual(MOST_KEYS);
  test.info().annotations.push({ type: 'keys', description: String(keys.count()) });
});
