import { expect, test } from './browser.ts';
import { openCamera, probe } from './steps.ts';

// who listens to Boot room takes one of the sessions that are counted there
test.describe.configure({ mode: 'default' });

test('the session limit of Boot room is found by trying, and stands in the site', async ({ page }) => {
  await openCamera(page, 'Boot room');
  const panel = page.getByRole('region', { name: 'Sessions at once' });
  await panel.getByRole('button', { name: 'Count them' }).click();
  await expect(panel.getByText('Its clients may lose the stream meanwhile.')).toBeVisible();
  await panel.getByLabel('Stop at').fill('5');
  await panel.getByLabel('Stop at').press('Enter');
  await panel.getByRole('button', { name: 'Open up to 5' }).click();
  await expect(panel.getByText('4 at once')).toBeVisible({ timeout: 20_000 });
  await expect(panel.getByText(/one more is answered 453/)).toBeVisible();
  await expect(panel.getByText('The first was not affected.')).toBeVisible();
  await page.reload();
  await expect(panel.getByText('4 at once')).toBeVisible();
});

test('a camera is listened to: silent until asked for, then with its loudness', async ({ page }) => {
  await openCamera(page, 'Boot room');
  await probe(page);
  await expect(page.getByRole('row', { name: 'audio', exact: false }).first()).toContainText('PCMU');
  const listen = page.getByRole('button', { name: 'Listen' });
  await expect(listen).toBeVisible({ timeout: 15_000 });
  await expect(page.getByRole('meter', { name: 'Volume' })).toHaveCount(0);
  await listen.click();
  // three notes and a rest, at a quarter of full scale
  await expect(page.getByText(/^-(1\d|2\d) dB$/)).toBeVisible({ timeout: 15_000 });
  await page.getByRole('button', { name: 'Mute it' }).click();
  await expect(page.getByRole('meter', { name: 'Volume' })).toHaveCount(0);
});
