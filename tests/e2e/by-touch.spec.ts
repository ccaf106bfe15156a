import { expect, type Page, apart as test } from './browser.ts';
import { noSidewaysScroll } from './reach.ts';
import { type RealWorld, startForReal } from './steps.ts';

// One camera from an empty site to handed over with a thumb, on a phone.

let world: RealWorld;
test.beforeAll(async () => {
  world = await startForReal();
});
test.afterAll(() => world.end());

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

const tapOn = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name }).filter({ visible: true }).first().tap();
const goTo = (page: Page, place: string) =>
  page.getByRole('link', { name: place, exact: true }).filter({ visible: true }).first().tap();
const station = (page: Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name }).tap();

/** Two fingers that go apart on the sheet. */
async function pinch(page: Page): Promise<void> {
  const box = await page.getByRole('application').boundingBox();
  if (!box) throw new Error('no plan');
  const client = await page.context().newCDPSession(page);
  const [x, y] = [box.x + box.width / 2, box.y + 80];
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', apart: number) =>
    client.send('Input.dispatchTouchEvent', {
      type,
      touchPoints:
        type === 'touchEnd'
          ? []
          : [
              { x: x - apart, y },
              { x: x + apart, y },
            ],
    });
  await touch('touchStart', 20);
  for (const apart of [30, 40, 60]) await touch('touchMove', apart);
  await touch('touchEnd', 0);
}

test('one camera by touch alone: begun, placed, probed, tapped, handed over; nothing is wider than the phone', async ({
  page,
}) => {
  test.setTimeout(90_000);
  await page.goto(world.address);
  await page.getByLabel('Name of the site').fill('Barley Farm');
  await tapOn(page, 'Create');
  await page.getByLabel('Name', { exact: true }).fill('Gate');
  await page.getByLabel('Stream URL or address').fill(world.urls[1]?.[0] ?? '');
  await tapOn(page, 'Add');
  await expect(page.getByRole('heading', { name: 'Gate', level: 1 })).toBeVisible();
  await noSidewaysScroll(page);

  await tapOn(page, /^Change Gate/);
  await page.getByLabel('Place', { exact: true }).fill('Left post');
  await tapOn(page, 'Save');
  await expect(page.getByText('Left post').filter({ visible: true })).toBeVisible();

  // It is put where it goes on the plan, which two fingers enlarge.
  await goTo(page, 'Plan');
  await tapOn(page, 'Place Gate');
  const sheet = page.getByRole('application');
  await sheet.scrollIntoViewIfNeeded();
  const box = await sheet.boundingBox();
  if (!box) throw new Error('no plan');
  expect(box.width).toBeGreaterThanOrEqual(388);
  await page.touchscreen.tap(box.x + box.width / 4, box.y + 60);
  await expect(page.getByText('Everything is placed.')).toBeVisible();
  const before = await page
    .locator('canvas')
    .first()
    .evaluate((canvas) => canvas.clientWidth);
  await pinch(page);
  await expect
    .poll(() =>
      page
        .locator('canvas')
        .first()
        .evaluate((canvas) => canvas.clientWidth),
    )
    .toBeGreaterThan(before * 1.5);
  await noSidewaysScroll(page);

  await goTo(page, 'Cameras');
  await page.getByRole('link', { name: 'Gate', exact: true }).tap();
  await station(page, /Tap/);
  await tapOn(page, /^Probe/);
  await expect(page.getByRole('region', { name: 'Facts' })).toBeVisible({ timeout: 15_000 });
  await tapOn(page, 'New destination');
  await page.getByLabel('Name', { exact: true }).fill('Attic store');
  await page.getByLabel('Codecs it takes', { exact: true }).fill('H264');
  await tapOn(page, 'Save');
  await tapOn(page, /^Tap it/);
  await page.getByRole('link', { name: /Its sheet for Attic store/ }).tap();
  await tapOn(page, 'Entered at Attic store');
  await expect(page.getByText('Entered at Attic store, with this address.')).toBeVisible();
  await noSidewaysScroll(page);
  await page.getByRole('link', { name: /All sheets of Attic store/ }).tap();
  await expect(page.getByRole('heading', { name: 'All sheets', level: 1 })).toBeVisible();
  await noSidewaysScroll(page);
  await goTo(page, 'Cameras');
  await expect(page.getByRole('link', { name: /Open its sheet/ })).toBeVisible();
  await noSidewaysScroll(page);
});
