import { readFile } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { SITE_VERSION } from '../../src/core/document/version.ts';
import { apart, expect, type Page } from './browser.ts';
import { exportSite } from './steps.ts';

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.woff2': 'font/woff2',
  '.svg': 'image/svg+xml',
};

/** The demo's page with three more stations: built from the same sources, with two registries in the place of ours. */
async function openHouse(page: Page): Promise<void> {
  const folder = join(import.meta.dirname, '../../dist/house');
  await page.route(/^http:\/\/[^/]+\/(?!api\/)/, async (route) => {
    const { pathname } = new URL(route.request().url());
    const name = extname(pathname) === '' ? '/index.html' : pathname;
    const contentType = TYPES[extname(name)] ?? 'application/octet-stream';
    await route.fulfill({ body: await readFile(join(folder, name)), contentType });
  });
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Cameras' })).toBeVisible();
}

const NAMES = ['Choose', 'Power', 'Prepare', 'Address', 'Tap', 'Prove', 'Hand over', 'Watch'];

apart('eight stations move in by two registries: Round, heads, finder and routes have them all', async ({ page }) => {
  await openHouse(page);
  for (const name of NAMES) await expect(page.getByRole('columnheader').getByText(name, { exact: true })).toBeVisible();
  const lane = page.getByRole('img', { name: /^Choose: .*; Power: .*; Prepare: .*; Watch: / }).first();
  await expect(lane).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Find' }).fill('Sluice rail: Prove');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Sluice rail at prove')).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Stations' }).getByRole('link')).toHaveCount(NAMES.length);
  await page.getByRole('link', { name: /^Watch/ }).click();
  await expect(page.getByText('Sluice rail at watch')).toBeVisible();

  // A chapter moves in by two more, its version and its step: commands, undo, store, file and the gate of what fits have it.
  await page.getByRole('link', { name: /^Prove/ }).click();
  await page.getByRole('button', { name: 'Put up a badge' }).click();
  await expect(page.getByText('Badges: heron')).toBeVisible();
  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.getByText('Badges: heron')).toHaveCount(0);
  await page.keyboard.press('ControlOrMeta+Shift+z');
  await expect(page.getByText('Badges: heron')).toBeVisible();
  await page.getByRole('button', { name: 'Put up a long badge' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Not done' })).toContainText('badges does not fit');
  await expect(page.getByText('Badges: heron')).toBeVisible();
  // the demo's site is of the version before: its step gave it the chapter
  const { version, badges } = JSON.parse(await exportSite(page));
  expect([version, badges]).toEqual([SITE_VERSION + 1, [{ id: 'b0', text: 'heron' }]]);
  await page.reload();
  await expect(page.getByText('Badges: heron')).toBeVisible();
  await page.keyboard.press('l');
  await expect(page.getByText('Badge heron put up').first()).toBeVisible();
});

apart.describe('on a phone', () => {
  apart.use({ viewport: { width: 390, height: 844 } });
  apart('a lane of eight stations fits', async ({ page }) => {
    await openHouse(page);
    for (const path of ['', '/camera/boot-room/power', '/camera/boot-room/prove']) {
      await page.goto(`/site/alder-mill${path}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      const { wide, inner } = await page.evaluate(() => ({
        wide: document.documentElement.scrollWidth,
        inner: document.documentElement.clientWidth,
      }));
      expect([path, wide]).toEqual([path, inner]);
      for (const one of await page.getByRole('img', { name: /^Choose: / }).all()) {
        const box = await one.boundingBox();
        if (box) expect(box.x + box.width).toBeLessThanOrEqual(inner);
      }
    }
  });
});
