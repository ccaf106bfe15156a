import { expect, type Page, test } from '@playwright/test';
import { checkAccess, noSidewaysScroll } from './reach.ts';
import { openCamera, probe } from './steps.ts';

for (const scheme of ['light', 'dark'] as const)
  test(`every view can be reached by anyone: ${scheme} sheet`, async ({ page }) => {
    test.setTimeout(150_000); // axe over many views, two such tests at once
    await page.emulateMedia({ colorScheme: scheme });
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Round' })).toBeVisible();
    await checkAccess(page, scheme);
    await openCamera(page, 'Boot room');
    await checkAccess(page, scheme);
    await probe(page);
    await page.getByRole('button', { name: 'Open the exchange' }).click();
    await checkAccess(page, scheme);
    await page.getByRole('button', { name: 'Tap it' }).click();
    await page.getByRole('link', { name: /Its sheet/ }).click();
    await expect(page.getByRole('region', { name: 'Sheet' })).toBeVisible();
    await checkAccess(page, scheme);
    await page.getByRole('link', { name: 'Logbook' }).click();
    await checkAccess(page, scheme);
    for (const key of ['/', '?']) {
      await page.keyboard.press(key);
      await expect(page.getByRole('dialog')).toBeVisible();
      await checkAccess(page, scheme);
      await page.keyboard.press('Escape');
    }
    await page.getByRole('button', { name: 'Secrets: this visit' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await checkAccess(page, scheme);
    await page.keyboard.press('Escape');
    await page.getByLabel('Camera list').setInputFiles({
      name: 'old.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('name,ip,path\nWeir,10.77.4.60,/live\nBarn,10.77.4.61,live\n'),
    });
    await expect(page.getByRole('dialog', { name: 'Cameras of old.csv' })).toBeVisible();
    await checkAccess(page, scheme);
    await page.getByRole('button', { name: 'Leave it' }).click();
    await page.goto('/site/nowhere');
    await expect(page.getByRole('heading', { name: 'This site cannot be opened' })).toBeVisible();
    await checkAccess(page, scheme);
  });

/** Every view of planning, as Alder Mill shows it: a lane's station, or a place. */
const PLANNING = [
  { camera: 'Landing stage', station: 'Power' },
  { camera: 'Bread oven', station: 'Power' },
  { camera: 'Bee stand', station: 'Power' },
  { camera: 'Orchard track', station: 'Choose' },
  { place: 'Plan' },
  { place: 'Cost' },
] as const;

async function openPlanning(page: Page, view: (typeof PLANNING)[number]): Promise<void> {
  if ('place' in view) {
    await page.goto('/');
    await page.getByRole('link', { name: view.place }).filter({ visible: true }).click();
    await expect(page.getByRole('heading', { name: view.place, level: 1 })).toBeVisible();
  } else {
    await openCamera(page, view.camera);
    await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: view.station }).click();
    await expect(
      page.getByRole('region', { name: view.station === 'Choose' ? 'Candidates' : 'What feeds it' }),
    ).toBeVisible();
  }
}

for (const scheme of ['light', 'dark'] as const)
  test(`planning can be reached by anyone: ${scheme} sheet`, async ({ page }) => {
    test.setTimeout(150_000); // axe over many views, two such tests at once
    await page.emulateMedia({ colorScheme: scheme });
    for (const view of PLANNING.slice(scheme === 'dark' ? 2 : 0)) {
      await openPlanning(page, view);
      await checkAccess(page, scheme);
    }
    if (scheme === 'dark') return; // slips have the colours of what lies under them
    await page.getByRole('button', { name: 'Software on the Loft store' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await checkAccess(page, scheme);
    await page.keyboard.press('Escape');
    await openPlanning(page, PLANNING[3]);
    for (const slip of ['Change', 'Its card', 'Add a model']) {
      await page.getByRole('button', { name: slip, exact: true }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      await checkAccess(page, scheme);
      await page.keyboard.press('Escape');
    }
  });

test.describe('planning on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('no view of planning scrolls sideways', async ({ page }) => {
    for (const view of PLANNING) {
      await openPlanning(page, view);
      await noSidewaysScroll(page);
    }
  });
});
