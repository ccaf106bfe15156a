import { expect, test } from './browser.ts';
import { openCamera } from './steps.ts';

test('the session limit of Boot room is found by trying, and stands in the site', async ({ page }) => {
  await openCamera(page, 'Boot room');
  const panel = page.getByRole('region', { name: 'Sessions at once' });
  await panel.getByRole('button', { name: 'Count them' }).click();
  await expect(panel.getByText('Whoever draws it now may lose the picture meanwhile.')).toBeVisible();
  await panel.getByLabel('Stop at').fill('5');
  await panel.getByLabel('Stop at').press('Enter');
  await panel.getByRole('button', { name: 'Open up to 5' }).click();
  await expect(panel.getByText('4 at once')).toBeVisible({ timeout: 20_000 });
  await expect(panel.getByText(/one more is told 453/)).toBeVisible();
  await expect(panel.getByText('The first one did not notice.')).toBeVisible();
  await page.reload();
  await expect(panel.getByText('4 at once')).toBeVisible();
});
