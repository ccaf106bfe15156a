import { expect, test } from './browser.ts';
import { exportSite } from './steps.ts';

const LIST = [
  'Password;Where;IP address;Camera name;Weight;Path',
  'hop&5;Wheel pit;10.77.4.51;Wheel pit;2;/live',
  ';Malt floor;10.77.4.52;Malt floor;1;live',
  ';Yard;10.77.4.53;Yard gate;1;/live',
].join('\r\n');

test('a camera list is seen before it is taken: what is none is refused, bad rows are named, good rows kept, and all is one edit', async ({
  page,
}) => {
  await page.goto('/');
  // What is no list is refused with its reason.
  await page
    .getByLabel('Camera list')
    .setInputFiles({ name: 'photo.csv', mimeType: 'text/csv', buffer: Buffer.from([0x89, 0x50, 0, 0xff, 0xfe]) });
  await expect(page.getByRole('dialog', { name: 'This list was not imported' })).toContainText('not UTF-8 text');
  await page.keyboard.press('Escape');
  await page
    .getByLabel('Camera list')
    .setInputFiles({ name: 'all.csv', mimeType: 'text/csv', buffer: Buffer.alloc(5 * 1024 * 1024, 'a,b\n') });
  await expect(page.getByRole('dialog', { name: 'This list was not imported' })).toContainText('larger than the 4 MB');
  await page.keyboard.press('Escape');

  await page
    .getByLabel('Camera list')
    .setInputFiles({ name: 'old.csv', mimeType: 'text/csv', buffer: Buffer.from(LIST) });
  const slip = page.getByRole('dialog', { name: 'Cameras of old.csv' });
  await expect(slip.getByLabel('Column Camera name holds')).toHaveValue('name');
  await expect(slip.getByLabel('Column Weight holds')).toHaveValue('none');
  await expect(slip.getByText('2 of 3 fit')).toBeVisible();
  await expect(slip.getByText('path: It starts with “/”.')).toBeVisible();
  await expect(slip.getByText('hop&5')).toHaveCount(0);

  const path = slip.getByLabel('Column Path holds');
  await path.focus();
  await path.selectOption('none');
  await expect(slip.getByText('3 of 3 fit')).toBeVisible();
  await expect(path).toBeFocused();
  await path.selectOption('main path');
  await slip.getByRole('button', { name: 'Add 2 cameras' }).click();
  await expect(page.getByRole('link', { name: 'Wheel pit', exact: true })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Yard gate', exact: true })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Malt floor', exact: true })).toHaveCount(0);
  expect(await exportSite(page)).not.toContain('hop');

  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.getByRole('link', { name: 'Wheel pit', exact: true })).toHaveCount(0);
});
