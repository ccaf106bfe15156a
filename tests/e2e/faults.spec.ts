import { expect, type Page, test } from './browser.ts';
import { checkAccess, noSidewaysScroll } from './reach.ts';

const region = (page: Page, name: string) => page.getByRole('region', { name });

async function take(page: Page, device: string, guess: string): Promise<void> {
  await page
    .getByRole('list', { name: 'Devices' })
    .getByRole('button', { name: new RegExp(device) })
    .click();
  await page.getByRole('button', { name: 'Probe it', exact: true }).click();
  // nothing gives it away before somebody said what it is
  await expect(region(page, 'What is wrong?')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText('this proves it')).toHaveCount(0);
  await region(page, 'What is wrong?').getByRole('button', { name: guess, exact: true }).click();
}

test('five faults of the gallery are taken; the verdict names its experiment, and the score what was mixed up', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Faults' }).click();
  await expect(page.getByRole('heading', { name: 'Fault gallery' })).toBeVisible();
  const outcome = region(page, 'Cause');

  await take(page, 'Goose run', 'Connection closed by the camera');
  await expect(outcome.getByText('Your answer: Connection closed by the camera.')).toBeVisible();
  await expect(outcome.getByText(/Spoke TLS on port 554: it showed a certificate · this proves it/)).toBeVisible();
  await checkAccess(page);

  for (const [device, right, proof] of [
    ['Ash pit', 'Not a stream URL', null],
    ['Flax loft', 'RTSP on another port', /Spoke RTSP on port 8554: it answered/],
    ['Oast stair', 'Upper and lower case swapped', /swapped: the account was accepted/],
    ['Upper sluice', 'Stream at another path', /Asked for \/live: a stream is there/],
  ] as const) {
    await take(page, device, right);
    await expect(outcome.getByRole('heading', { name: `Right: ${right}` })).toBeFocused();
    if (proof) await expect(outcome.getByRole('listitem').filter({ hasText: proof })).toContainText('this proves it');
  }
  const score = region(page, 'Score');
  await expect(score.getByText('4 of 5 right')).toBeVisible();
  await expect(score.getByRole('row', { name: /RTSP over TLS only/ })).toContainText(
    'answered as “Connection closed by the camera”',
  );
  // it is kept by this browser, and is forgotten and brought back by hand
  await page.reload();
  await expect(score.getByText('4 of 5 right')).toBeVisible();
  await score.getByRole('button', { name: 'Start again' }).click();
  await expect(score.getByText('nothing answered yet')).toBeVisible();
  await score.getByRole('button', { name: 'Restore it' }).click();
  await expect(score.getByText('4 of 5 right')).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });
  await noSidewaysScroll(page);
});
