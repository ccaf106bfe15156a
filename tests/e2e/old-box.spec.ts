import { expect, test } from './browser.ts';
import { fact, openCamera, picture, probe, savedFile, tape } from './steps.ts';

test('an old box: the wrong path is named and mended, then what it is', async ({ page }) => {
  await openCamera(page, 'Linen stair');
  await probe(page);
  // The device is asked for its paths before the person is, and the one that works is offered as an act.
  await expect(page.getByText('Stream at another path').first()).toBeVisible();
  await expect(page.getByText(/Asked for \/video\.mjpg: a stream is there\./).first()).toBeVisible();
  // What was said on the way is explained line by line, and leaves as text for a support desk.
  await tape(page).getByRole('button', { name: 'Open the exchange' }).click();
  await expect(tape(page).getByText('this decides it')).toHaveCount(1);
  await expect(tape(page).getByText('account and password, readable for anyone listening on the way')).toBeVisible();
  const { name, text } = await savedFile(page, () => tape(page).getByRole('button', { name: 'Save as text' }).click());
  expect(name).toMatch(/^probe-10-77-4-33-.*\.txt$/);
  expect(text).toMatch(/^< at .*and this decides it\n< RTSP\/1\.0 404/m);
  expect(text).toMatch(/^> Authorization: Basic \*\*\*/m);
  await page.getByRole('button', { name: 'Set its path to /video.mjpg, where a stream is' }).first().click();
  await expect(page.getByLabel('Path', { exact: true })).toHaveValue('/video.mjpg');
  await probe(page);
  await expect(page.getByText('Clock is 8 years slow').first()).toBeVisible();
  await expect(page.getByText('Password sent readable').first()).toBeVisible();
  await expect(page.getByText(/Response time \d+ ms/).first()).toBeVisible();
  await expect(fact(page, 'codec')).toContainText('JPEG');
  await expect(fact(page, 'resolution')).toContainText('640×480');
  await expect(fact(page, 'login')).toContainText('Basic');
});

test('what an old box is means something else to each destination, and it serves two', async ({ page }) => {
  await openCamera(page, 'Linen stair');
  await page.getByLabel('Path', { exact: true }).fill('/video.mjpg');
  await probe(page);
  // Its picture comes, and its delay is told by arrival: its clock says 8 years.
  await expect(picture(page)).toBeVisible({ timeout: 15_000 });
  await expect(picture(page)).toHaveAttribute('title', /the camera reports no clock/);
  const panel = page.getByRole('region', { name: 'Where it goes' });
  await expect(panel.getByText('JPEG not taken by Loft store')).toBeVisible();
  await expect(panel.getByText('Recordings of Loft store under the wrong time')).toBeVisible();
  await panel.getByLabel('Destination').selectOption({ label: 'Mill hub' });
  await panel.getByLabel('Use').selectOption({ label: 'watch live' });
  await expect(panel.getByText('Password sent readable by Mill hub')).toBeVisible();
  await expect(panel.getByText('JPEG not taken')).toHaveCount(0);
  await panel.getByRole('button', { name: 'Tap it' }).click();

  // It serves two: a third tap is one too many, and says so at each.
  await panel.getByLabel('Use').selectOption({ label: 'detect' });
  await panel.getByRole('button', { name: 'Tap it' }).click();
  await expect(panel.getByText('No session left to view with').first()).toBeVisible();
  await panel.getByLabel('Use').selectOption({ label: 'take snapshots' });
  await panel.getByRole('button', { name: 'Tap it' }).click();
  await expect(panel.getByText('3 sessions needed, 2 supported').first()).toBeVisible();
});

test('the same stream over UDP, and the tape says which way it came', { tag: '@timed' }, async ({ page }) => {
  await openCamera(page, 'Sluice rail');
  await page.getByLabel('Transport').selectOption('udp');
  await probe(page);
  await expect(page.getByText('No findings for this stream.')).toBeVisible();
  await expect(tape(page).getByText(/round trips, UDP$/)).toBeVisible();
  await expect(
    tape(page).getByRole('button', { name: /^setup 200 UDP from port \d+; UDP was requested/ }),
  ).toBeVisible();
  await expect(fact(page, 'packet loss')).toContainText(/none of \d+: at most/);
});
