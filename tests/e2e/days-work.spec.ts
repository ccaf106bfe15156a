import { readSiteFile } from '../../src/core/document/site-file.ts';
import { expect, type Page, test } from './browser.ts';
import { apartFromOpening, openFile, type RealWorld, savedFile, startForReal } from './steps.ts';

// A day's work as a new user has it: an empty site, a real network, nothing that was written in code.

// Each goes on from the file of the one before.
test.describe.configure({ mode: 'serial' });
let begun = '';
let planned = '';
let worked = '';
const CAMERAS = ['Gate', 'Yard', 'Stable', 'Hay loft', 'Dairy', 'Court'] as const;

let world: RealWorld;
test.beforeAll(async () => {
  world = await startForReal();
});
test.afterAll(() => world.end());

const region = (page: Page, name: string | RegExp) => page.getByRole('region', { name });
const urlOf = (device: number, stream = 0): string => world.urls[device]?.[stream] ?? '';

async function menu(page: Page, item: string): Promise<void> {
  await page.getByRole('button', { name: /^Site:/ }).click();
  await page.getByRole('menuitem', { name: item }).click();
}

async function writeCard(page: Page, fields: Readonly<Record<string, string>>): Promise<void> {
  await page.getByRole('button', { name: 'Write a model card' }).click();
  const card = page.getByRole('dialog', { name: 'New model card' });
  await card.getByText('All other figures').click();
  await card.getByLabel('Local stream').selectOption('rtsp');
  for (const [label, text] of Object.entries(fields)) await card.getByLabel(label, { exact: true }).fill(text);
  await card.getByLabel('It has them').selectOption('no');
  await card.getByLabel('Illuminator', { exact: true }).selectOption('infrared');
  await card.getByLabel('Rated range, m').fill('30');
  await card.getByLabel('Angle, °').fill('110');
  await card.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog', { name: 'Model cards' })).toBeVisible();
}

async function addCamera(page: Page, name: string, url: string): Promise<void> {
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Stream URL or address').fill(url);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

async function putOnPlan(page: Page, name: string, right: number, down: number): Promise<void> {
  await page.getByRole('button', { name: `Place ${name}`, exact: true }).click();
  await expect(page.getByText(`Click where ${name} goes.`)).toBeVisible();
  const box = await page.getByRole('application').boundingBox();
  if (!box) throw new Error('no plan');
  await page.mouse.click(box.x + (right / 40) * box.width, box.y + (down / 40) * box.width);
  await expect(page.getByRole('button', { name: `Place ${name}`, exact: true })).toHaveCount(0);
}

const place = (page: Page, name: string) =>
  page.getByRole('link', { name, exact: true }).filter({ visible: true }).first();

async function exported(page: Page): Promise<string> {
  const { text } = await savedFile(page, () => menu(page, 'Export this site'));
  return text;
}

test('begun by hand on an empty site: model cards, a camera with its place', async ({ page }) => {
  await page.goto(world.address);
  await expect(page.getByRole('button', { name: 'Open a site file' })).toBeVisible();
  await page.getByLabel('Name of the site').fill('Barley Farm');
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('heading', { name: 'Add the first camera' })).toBeVisible();

  // Model cards from the site's menu, before any camera asks for one.
  await menu(page, 'Model cards');
  const common = {
    'By day, W': '4',
    'At night, W': '6,5 W',
    'Horizontal angle of view, °': '87',
    'IP code': 'IP66',
    'Clients at once': '4',
  };
  await writeCard(page, {
    ...common,
    Make: 'Ostrel',
    Model: 'Dome 2',
    Resolution: '1280x720',
    'Codecs of the main stream': 'H.264',
    'Power sources': '802.3af',
    'Price each': '90',
    Path: '/live/main',
  });
  await writeCard(page, {
    ...common,
    Make: 'Marrick',
    Model: 'C1',
    Resolution: '640×480',
    'Codecs of the main stream': 'MJPEG',
    'Power sources': 'PoE',
    'Price each': '20',
  });
  await expect(
    page.getByRole('listitem').filter({ hasText: /Ostrel Dome 2.*1280×720.*H\.264.*class 3/ }),
  ).toBeVisible();
  await page.keyboard.press('Escape');

  await addCamera(page, 'Lane', urlOf(0));
  await page.getByRole('button', { name: 'Change Lane' }).click();
  await page.getByLabel('Place', { exact: true }).fill('Gatepost, left');
  await page.getByLabel('SD card bought for it, GB').fill('64');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Gatepost, left').filter({ visible: true })).toBeVisible();
  begun = await exported(page);
});

test('planned by hand: walls, gear, destinations, cables, and where each lies', async ({ page }) => {
  await page.goto(world.address);
  await openFile(page, 'farm.json', begun);
  await expect(page.getByRole('heading', { name: 'Cameras', level: 1 })).toBeVisible();
  // The plan: walls, a switch, an access point, a recorder of 4 TB with three seats, a hub, a tablet.
  await place(page, 'Plan').click();
  await page.getByLabel('North, °').fill('20');
  await page.getByLabel('North, °').press('Enter');
  await page.getByRole('button', { name: 'Walls' }).click();
  await page.getByLabel('Wall of').selectOption('brick');
  const box = await page.getByRole('application').boundingBox();
  if (!box) throw new Error('no plan');
  for (const [x, y] of [
    [10, 5],
    [30, 5],
    [30, 18],
  ] as const) {
    await page.mouse.click(box.x + (x / 40) * box.width, box.y + (y / 40) * box.width);
    await page.waitForTimeout(0);
  }
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'Move' }).click();
  for (const { kind, name } of [
    { kind: 'switch', name: 'Barn switch' },
    { kind: 'access-point', name: 'Barn radio' },
  ]) {
    await page.getByRole('button', { name: 'New gear' }).click();
    await page.getByLabel('Kind').selectOption(kind);
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByLabel('Price', { exact: true }).fill('80');
    if (kind === 'access-point') {
      await page.getByLabel('Channel').fill('6');
      await page.getByLabel('Powered by its switch').selectOption('3');
    } else await page.getByLabel('PoE budget, W').fill('120');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
  }
  for (const { kind, name, more } of [
    {
      kind: 'recorder',
      name: 'Attic store',
      more: { 'Licences included': '3', 'Disk, TB': '4', 'Price of the disk': '110', 'Days wanted': '14' },
    },
    { kind: 'hub', name: 'Farm hub', more: {} },
    {
      kind: 'viewer',
      name: 'Kitchen tablet',
      more: { 'Streams it decodes at once': '4', 'Largest resolution': '1080p' },
    },
  ] as const) {
    await page.getByRole('button', { name: 'New destination' }).click();
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByLabel('Kind').selectOption(kind);
    await page.getByLabel('Codecs it takes', { exact: true }).fill('H.264, H.265, JPEG');
    for (const [label, text] of Object.entries(more)) await page.getByLabel(label, { exact: true }).fill(text);
    if (kind === 'recorder') {
      await page.getByRole('button', { name: 'Add a pack' }).click();
      await page.getByLabel('Pack 1, licences').fill('2');
      await page.getByLabel('Pack 1, price').fill('45');
    }
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    // What was made is selected: joined at once.
    await region(page, name)
      .getByLabel('Link it to')
      .selectOption({ label: kind === 'viewer' ? 'Barn radio' : 'Barn switch' });
    await region(page, name).getByRole('button', { name: 'Link them' }).click();
  }
  await page.getByRole('button', { name: 'Barn switch – Attic store' }).waitFor();
  for (const [name, right, down] of [
    ['Barn switch', 15, 9],
    ['Barn radio', 18, 12],
    ['Attic store', 24, 8],
    ['Farm hub', 27, 10],
    ['Kitchen tablet', 24, 14],
    ['Lane', 16, 20],
  ] as const)
    await putOnPlan(page, name, right, down);
  await expect(page.getByText('Everything is placed.')).toBeVisible();
  await page.getByRole('button', { name: 'Barn switch – Attic store' }).click();
  await expect(region(page, 'Cable').getByText(/straight line, with an allowance for corners/)).toBeVisible();

  // The access point hangs on the switch.
  await region(page, 'Cable').getByRole('button', { name: 'Edit' }).click();
  await page.getByLabel('Label').fill('C-01');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: 'C-01' })).toBeVisible();

  planned = await exported(page);
  expect(planned).not.toMatch(/Weir|oiled|starch/);
});

test('opened elsewhere it is the same; twenty-six cameras from a list, six worked on at once, probed in one round', async ({
  page,
}) => {
  await page.goto(world.address);
  await openFile(page, 'farm.json', planned);
  await expect(page.getByRole('heading', { name: 'Cameras', level: 1 })).toBeVisible();
  const [a, b] = [planned, await exported(page)].map((file) => readSiteFile(apartFromOpening(file)));
  if (!(a?.ok && b?.ok)) throw new Error('one of them does not open');
  const { journal: told, ...plan } = b.value;
  const { journal: before, ...planBefore } = a.value;
  expect(plan).toEqual(planBefore);
  expect(told.slice(0, before.length)).toEqual(before);

  const list = [
    'name,place,url',
    ...CAMERAS.map((name, at) => `${name},Yard,${urlOf(at % 3, at < 3 ? 0 : 1)}`),
    ...Array.from({ length: 20 }, (_, at) => `Stall ${at + 1},Byre,rtsp://127.0.0.1/live/${at}`),
  ];
  await page
    .getByLabel('Camera list')
    .setInputFiles({ name: 'byre.csv', mimeType: 'text/csv', buffer: Buffer.from(list.join('\n')) });
  await page.getByRole('button', { name: 'Add 26 cameras' }).click();
  await page.getByRole('button', { name: /By station/ }).click();
  await page.getByLabel('Place', { exact: true }).selectOption('Byre');
  await expect(page.getByText('20 of 27 cameras')).toBeVisible();
  await expect(page.getByRole('row', { name: /Stall 7.*Byre/ })).toBeVisible();
  await page.getByLabel('Place', { exact: true }).selectOption('Yard');

  // All six at once: model, feed, who draws them.
  for (const name of CAMERAS) await page.getByLabel(`Choose ${name}`).check();
  const chosen = region(page, 'Chosen cameras');
  await chosen.getByLabel('Model of all', { exact: true }).selectOption({ label: 'Ostrel Dome 2' });
  await chosen.getByRole('button', { name: 'Set the model of all chosen' }).click();
  await chosen.getByLabel('Power source', { exact: true }).selectOption('poe');
  await chosen.getByLabel('from', { exact: true }).selectOption({ label: 'Barn switch' });
  await chosen.getByRole('button', { name: 'Set the power source of all chosen' }).click();
  await chosen.getByLabel('Goes to', { exact: true }).selectOption({ label: 'Attic store' });
  await chosen.getByRole('button', { name: 'Send all chosen' }).click();
  await expect(chosen.getByText('6 cameras go to Attic store to record, each by its first stream.')).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Redo/ }).click();
  await chosen.getByRole('button', { name: 'Choose none' }).click();
  // One of them is another model: its card is put beside, and it is replaced in place.
  await page.getByRole('link', { name: 'Stable', exact: true }).click();
  await page.getByRole('button', { name: 'Change Stable' }).click();
  await region(page, 'Another device in its place').getByLabel('Model').selectOption({ label: 'Marrick C1' });
  await page.getByRole('button', { name: 'Replace it' }).click();
  await expect(page.getByText(/^Marrick C1 ·/)).toBeVisible();

  // Everything is probed in one round.
  await place(page, 'Cameras').click();
  for (const name of CAMERAS.slice(0, 3)) await page.getByLabel(`Choose ${name}`).check();
  await chosen.getByRole('button', { name: 'Probe them' }).click();
  await expect(page.getByText('3 of 3 cameras probed. The results are in the lanes.')).toBeVisible({
    timeout: 60_000,
  });

  worked = await exported(page);
});

test('what was worked on goes to the last sheet: seats, what is bought, handed over, noted', async ({ page }) => {
  await page.goto(world.address);
  await openFile(page, 'farm.json', worked);
  await expect(page.getByRole('heading', { name: 'Cameras', level: 1 })).toBeVisible();
  // Seats: one number, at the tap and in the cost.
  await page.getByRole('link', { name: 'Gate', exact: true }).click();
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /Tap/ }).click();
  await expect(region(page, 'Where it goes').getByText('6 of 3', { exact: true })).toBeVisible();
  await place(page, 'Cost').click();
  await expect(region(page, 'Licences').getByText('6 of 3', { exact: true })).toBeVisible();
  await expect(region(page, 'Licences').getByText(/2 × 2 licences for € 90/)).toBeVisible();
  const shopping = region(page, 'Shopping list');
  await expect(shopping.getByRole('row', { name: /Ostrel Dome 2/ })).toContainText('5');
  await expect(shopping.getByRole('row', { name: /SD card of 64 GB/ })).toBeVisible();
  const { text: csv } = await savedFile(page, () => shopping.getByRole('button', { name: 'Save as CSV' }).click());
  expect(csv.split('\r\n')[0]).toBe('what,count,unit,price (€),sum (€),for');
  await page.getByRole('button', { name: 'Add an option' }).click();
  await page.getByLabel('Name', { exact: true }).fill('As planned');
  await page.getByLabel('Licences counted at').selectOption({ label: 'Attic store' });
  for (let twice = 0; twice < 2; twice++)
    await page.getByRole('button', { name: 'Take over what the plan has' }).click();
  const lines = await page
    .getByLabel('What', { exact: true })
    .evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value));
  expect(new Set(lines).size).toBe(lines.length);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(region(page, 'Side by side').getByRole('row', { name: /of this, licences/ })).toContainText('2 × 2');

  // Handed over, sheet by sheet, and all of them in one file.
  await page.keyboard.press('/');
  await page.getByRole('combobox').fill('All sheets');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'All sheets', level: 1 })).toBeVisible();
  for (const name of CAMERAS) await page.getByRole('button', { name: `${name} entered at Attic store` }).click();
  await expect(page.getByText('entered', { exact: true })).toHaveCount(6);
  await page.getByLabel('Of', { exact: true }).selectOption({ label: 'Attic store' });
  const { name: sheetFile, text: sheets } = await savedFile(page, () =>
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  );
  expect(sheetFile).toBe('barley-farm-attic-store-sheets.csv');
  expect(sheets.trim().split('\r\n')).toHaveLength(7);

  // A note of one's own, found by the camera it is about.
  await place(page, 'Logbook').click();
  await page.getByRole('button', { name: 'Write a note' }).click();
  await page.getByRole('form', { name: 'Note' }).getByLabel('About').selectOption({ label: 'Dairy' });
  await page.getByRole('textbox', { name: 'Note', exact: true }).fill('Key hangs behind the churn');
  await page.getByRole('button', { name: 'Save the note' }).click();
  await page.getByLabel('Entries about').selectOption({ label: 'Dairy' });
  await page.getByLabel('Text').fill('churn');
  await expect(page.getByText('Key hangs behind the churn')).toBeVisible();
  await expect(page.getByText('1 entry')).toBeVisible();
});
