import { expect, type Page, test } from './browser.ts';
import { beginSite, openCamera, savedFile, sitesReadBack } from './steps.ts';

const region = (page: Page, name: string | RegExp) => page.getByRole('region', { name });

test.afterEach(({ page }) => sitesReadBack(page));

test('the place is dragged to scale and all numbers follow; of two lenses both are shown', async ({ page }) => {
  await test.step('the place is dragged to scale, by pointer and by keys, and all numbers follow', async () => {
    await openCamera(page, 'Orchard track', 'choose');
    const figure = page.getByRole('slider', { name: 'Distance of the target' });
    const box = await figure.boundingBox();
    if (!box) throw new Error('no figure');
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 - 120, box.y + box.height / 2, { steps: 6 });
    await page.mouse.up();
    await expect(figure).not.toHaveAttribute('aria-valuenow', '9.5');
    expect(Number(await figure.getAttribute('aria-valuenow'))).toBeLessThan(9);
    await expect(region(page, 'Candidates').getByRole('rowheader', { name: /^recognise at [5-8]/ })).toBeVisible();
    // The zone began at 8.5 m: it is taken along, and never begins beyond its end.
    const near = region(page, 'Candidates').getByRole('rowheader', { name: /^visible from [5-8](\.\d)? m/ });
    await expect(near).toBeVisible();
    await page.getByRole('slider', { name: 'Mounting height' }).press('ArrowUp');
    await expect(page.getByText('3.3 m', { exact: true }).first()).toBeVisible();
    await page.getByRole('slider', { name: 'Tilt', exact: true }).press('ArrowDown');
    await expect(page.getByText(/^14° down/)).toBeVisible();
    await page.getByRole('button', { name: 'From above' }).click();
    await expect(page.getByText('78° wide', { exact: true })).toBeVisible();
  });
  await test.step('two lenses are both shown: what each makes of the target, and which of them does not see it', async () => {
    await openCamera(page, 'Landing stage', 'choose');
    await page.getByRole('button', { name: 'Pellam Pair 5' }).click();
    await expect(page.getByText(/^Solid lines: its wide lens, 90° wide\. Dashed: its long lens, 39°\.$/)).toBeVisible();
    const pictures = region(page, 'Expected picture');
    const long = pictures.getByRole('listitem').filter({ hasText: 'Pellam Pair 5, long lens' });
    await expect(long.getByRole('img', { name: /398 px\/m: identify/ })).toBeVisible();
    await expect(pictures.getByRole('img', { name: /Pellam Pair 5, wide lens: .*139 px\/m/ })).toBeVisible();
    // Half of 22° is seen above and below 39° down: at nine metres a face lies outside the long lens, and inside the wide one.
    await page.getByRole('slider', { name: 'Tilt down' }).fill('39');
    await expect(long.getByText('outside its picture')).toBeVisible();
    await expect(pictures.getByRole('img', { name: /Pellam Pair 5, wide lens/ })).toBeVisible();
  });
});

test('a place that has no camera yet: named, its need said, a card written, refused where it cannot be', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add a camera' }).click();
  await page.getByLabel('Name').fill('Wheel pit');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Wheel pit', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Enter what it must show' }).click();
  await page.getByLabel('Distance, m').fill('-3');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Distance: more than 0, up to 1000 m, not -3.')).toBeVisible();
  await page.getByLabel('Distance, m').fill('6,5');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Recognise a person at 6.5 m, 4 m wide, day and night')).toBeVisible();

  await page.getByRole('button', { name: 'Add a model' }).click();
  await page.getByRole('button', { name: 'Write a model card' }).click();
  const card = page.getByRole('dialog', { name: 'New model card' });
  await card.getByLabel('Make', { exact: true }).fill('Tarrow');
  await card.getByLabel('Model', { exact: true }).fill('Eye 3');
  await card.getByLabel('Resolution').fill('2MP');
  await card.getByLabel('Lens', { exact: true }).fill('0.9 mm');
  await card.getByText('All other figures').click();
  await card.getByLabel('Sensor').fill('1/2.8');
  await card.getByRole('button', { name: 'Save' }).click();
  await expect(card.getByText(/0\.9 mm in front of a sensor 5\.6 mm wide would see 144°/)).toBeVisible();
  await card.getByLabel('Lens', { exact: true }).fill('4');
  await card.getByRole('button', { name: 'Save' }).click();
  await expect(region(page, 'Candidates').getByRole('columnheader', { name: /Tarrow Eye 3/ })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'From the side, to scale' })).toBeVisible();
  // What the card does not say is not known, and is not taken for fine.
  await expect(
    region(page, 'Candidates')
      .getByRole('row', { name: /outdoors/ })
      .getByRole('img', { name: 'not known' }),
  ).toBeVisible();
});

test('cards are kept beyond one site, saved as an open file and taken in again; a broken file is refused', async ({
  page,
}) => {
  await openCamera(page, 'Orchard track', 'choose');
  await page.getByRole('button', { name: 'Its model card' }).click();
  await page.getByLabel('Price each').fill('88');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Add a model' }).click();
  const { name, text } = await savedFile(page, () => page.getByRole('button', { name: 'Save all as a file' }).click());
  expect(name).toBe('models.cleartap-cards.json');
  expect(JSON.parse(text)).toMatchObject({ format: 'clear-tap/model-cards', version: 5 });
  await page
    .getByLabel('File of model cards')
    .setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from(text.slice(0, 400)) });
  await expect(page.getByText(/not whole JSON.*Nothing was imported/)).toBeVisible();
  const other = JSON.parse(text);
  other.cards = [{ ...other.cards[0], id: 'tarrow', maker: 'Tarrow', model: 'Eye 9' }];
  await page
    .getByLabel('File of model cards')
    .setInputFiles({ name: 'tarrow.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(other)) });
  await expect(page.getByText('1 model card imported from tarrow.json.')).toBeVisible();
  await page.keyboard.press('Escape');

  await beginSite(page, 'Barn');
  await page.getByLabel('Name', { exact: true }).fill('Gate');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('button', { name: 'Enter what it must show' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Add a model' }).click();
  await page.getByRole('button', { name: /Tarrow Eye 9/ }).click();
  await expect(region(page, 'Candidates').getByRole('columnheader', { name: /Tarrow Eye 9/ })).toBeVisible();
});
