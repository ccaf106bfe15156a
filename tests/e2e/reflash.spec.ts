import { createHash, randomBytes } from 'node:crypto';
import { appendFileSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BlobWriter, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { alone, apart, expect, type Page, test } from './browser.ts';
import { type DemoServer, openCamera, probeUntilPlays, sitesReadBack, startDemo, startForReal } from './steps.ts';

// Another firmware, from the decision to the camera that runs it, and back.

const region = (page: Page, name: string | RegExp) => page.getByRole('region', { name });
const press = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' }).click();
const folder = mkdtempSync(join(tmpdir(), 'clear-tap-'));
const file = (name: string, content: Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const IMAGE = randomBytes(5_000_003);
const DIGEST = createHash('sha256').update(IMAGE).digest('hex');
const MARKS = { board: 'QM-3 r2', 'flash chip': '16 MB', sensor: 'S307', radio: 'R8' };

/** One try at the bench: the simulated hands do it, and the steps are told. */
async function tryOnce(page: Page, sign: string): Promise<void> {
  await press(page, 'Unplug it');
  await press(page, 'It was unplugged that long');
  await press(page, 'Insert the SD card');
  await press(page, 'It is inserted');
  await press(page, 'Hold the button');
  await press(page, 'Plug it in');
  await press(page, 'Held, and plugged in');
  await expect(page.getByRole('img', { name: `Its LED: ${sign}` })).toBeVisible();
}
async function again(page: Page): Promise<void> {
  await press(page, 'Release the button');
  await press(page, 'Remove the SD card');
  await press(page, 'Try again');
}
async function writeAndCheck(page: Page): Promise<void> {
  await page.getByRole('region', { name: 'Step' }).getByRole('button', { name: 'The firmware file was found' }).click();
  await press(page, 'Release the button');
  await page.getByRole('region', { name: 'Step' }).getByRole('button', { name: 'It is writing' }).click();
  await expect(page.getByRole('img', { name: 'Its LED: red, steady' })).toBeVisible({ timeout: 15_000 });
  await page
    .getByRole('region', { name: 'Step' })
    .getByRole('button', { name: /It restarts/ })
    .click();
  await page
    .getByRole('region', { name: 'Step' })
    .getByRole('button', { name: 'It runs', exact: false })
    .first()
    .click();
  await press(page, 'It is there');
  await press(page, 'The stream plays');
  await press(page, 'They are set');
}
async function probeSays(page: Page, words: string | RegExp): Promise<void> {
  await press(page, 'Probe');
  await expect(page.getByText(words).first()).toBeVisible({ timeout: 20_000 });
}

async function toTap(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Reflash bench' }).click();
  await page.getByRole('link', { name: /^Tap/ }).click();
}

test.describe('the simulated Boot room of a demo of its own', () => {
  test.describe.configure({ mode: 'serial' }); // the second finds it as the first left it
  let demo: DemoServer;
  test.beforeAll(async () => {
    demo = await startDemo();
  });
  test.afterAll(() => void demo.process.kill());

  test('rehearsed with a wrong name, with a large card, then right: its stream answers', async ({ page }) => {
    await page.goto(`${demo.address}/site/alder-mill/camera/boot-room/tap`);
    await probeSays(page, /nothing listens|refused/i);
    await page.getByRole('link', { name: /^Prepare/ }).click();
    await page.getByRole('link', { name: 'Rehearse it' }).click();
    await press(page, 'Time runs 60 times as fast');

    await page.getByLabel('Name of its file').fill('mini_open.bin.txt');
    await tryOnce(page, 'red, steady');
    await page.getByRole('region', { name: 'Step' }).getByRole('button', { name: 'It boots as before' }).click();
    await expect(page.getByRole('alert')).toContainText('The firmware file was not found');
    await page.getByText('Why it does that').click();
    await expect(page.getByText(/a second extension follows/)).toBeVisible();
    await again(page);

    await page.getByLabel('Name of its file').fill('mini_open.bin');
    await page.getByLabel('SD card, GB').selectOption('128');
    await page.getByLabel('with a partition that is small enough').uncheck();
    await tryOnce(page, 'red, steady');
    await expect(page.getByText(/larger than the 32 GiB that it reads/)).toBeVisible();
    await page.getByRole('region', { name: 'Step' }).getByRole('button', { name: 'It boots as before' }).click();
    await again(page);

    await page.getByLabel('with a partition that is small enough').check();
    await tryOnce(page, 'blue, slow');
    await writeAndCheck(page);
    await expect(page.getByText('Rehearsed in 3 attempts. It is in the logbook.', { exact: false })).toBeVisible();
    await expect(page.getByText('its stream answers now', { exact: false })).toBeVisible();
    await toTap(page);
    await probeUntilPlays(page);
  });

  test('rehearsed back again, it refuses', async ({ page }) => {
    await page.goto(`${demo.address}/site/alder-mill/camera/boot-room/prepare`);
    await page.getByRole('link', { name: 'Rehearse it' }).click();
    await press(page, 'Time runs 60 times as fast');
    await press(page, 'Rehearse going back');
    await expect(page.getByLabel('Name of its file')).toHaveValue('mini_stock.bin');
    await tryOnce(page, 'blue, slow');
    await writeAndCheck(page);
    await expect(page.getByText('it has no stream now', { exact: false })).toBeVisible();
    await toTap(page);
    await probeSays(page, /nothing listens|refused/i);
  });
});

test('the plug is pulled while it writes: it hangs, the steps lead to bringing it back, and that works', async ({
  page,
}) => {
  await openCamera(page, 'Boot room', 'prepare');
  await page.getByRole('link', { name: 'Rehearse it' }).click();
  await press(page, 'Time runs 60 times as fast');
  await tryOnce(page, 'blue, slow');
  const step = page.getByRole('region', { name: 'Step' });
  await step.getByRole('button', { name: 'The firmware file was found' }).click();
  await press(page, 'Release the button');
  await press(page, 'Unplug it');
  await press(page, 'Plug it in');
  await expect(page.getByRole('img', { name: 'Its LED: red, two short, a pause' })).toBeVisible();
  await step.getByRole('button', { name: 'This pattern, again and again' }).click();
  await expect(page.getByRole('alert')).toContainText('The firmware is written halfway');
  await press(page, 'The same way, with that file');
  await press(page, 'Remove the SD card');
  await tryOnce(page, 'blue, slow');
  await writeAndCheck(page);
  await expect(page.getByText('Rehearsed in 2 attempts. It is in the logbook.', { exact: false })).toBeVisible();
});

test('the bench: decided, the image hashed and compared, a large card made small, the copy read back', async ({
  page,
}) => {
  await openCamera(page, 'Boot room', 'prepare/reflash');
  await press(page, 'Decide: install community firmware');
  const head = region(page, 'Worst finding');
  await expect(head).toContainText('Veto against a reflash');
  await page
    .getByLabel('Original firmware file', { exact: true })
    .setInputFiles(file('mini_stock.bin', randomBytes(4000)));
  await expect(head).not.toContainText('Veto against');
  await page.getByLabel('Choose the firmware file', { exact: true }).setInputFiles(file('mini_open.bin', IMAGE));
  const image = region(page, 'Firmware file');
  await expect(image.getByText(DIGEST)).toBeVisible();
  await image.getByLabel('SHA-256 as published').fill(DIGEST.slice(1));
  await page.keyboard.press('Tab');
  await expect(image.getByText('A SHA-256 checksum has 64 digits, this has 63.', { exact: false })).toBeVisible();
  await image.getByLabel('SHA-256 as published').fill(`${DIGEST.toUpperCase()}  mini_open.bin`);
  await page.keyboard.press('Tab');
  await expect(image.getByText('It is the published file.')).toBeVisible();
  for (const [mark, value] of Object.entries(MARKS)) await image.getByLabel(mark).fill(value);
  await image.getByLabel('sensor').fill('S420');
  await page.keyboard.press('Tab');
  await expect(region(page, 'Findings').getByText('Firmware file for another revision')).toBeVisible();
  await image.getByLabel('sensor').fill('S307');
  await page.keyboard.press('Tab');
  await expect(region(page, 'Findings').getByText('Firmware file for another revision')).toHaveCount(0);

  await press(page, 'An SD card of 128 GB');
  const card = region(page, 'SD card');
  await expect(card.getByText(/sectors 2.048 to 67.110.911 · 67.108.864 in all · 32.768 MiB/)).toBeVisible();
  await card.getByLabel('Partition, MiB').fill('100000');
  await page.keyboard.press('Tab');
  await expect(head).toContainText('Partition too large');
  await head.getByRole('button', { name: 'Make the partition 32768 MiB' }).click();
  await card.getByLabel('Name of the file on it').fill('mini_open.bin.txt');
  await page.keyboard.press('Tab');
  await expect(card.getByText('A second extension follows, which a desktop often hides.')).toBeVisible();
  await head.getByRole('button', { name: 'Call the file mini_open.bin' }).click();
  await card
    .getByLabel('File read back from the SD card')
    .setInputFiles(file('Mini_open.bin', IMAGE.subarray(0, 4_000_000)));
  await expect(card.getByText('differs from the firmware file')).toBeVisible();
  await expect(head).toContainText('Copy on the SD card differs');
  await card.getByLabel('File read back from the SD card', { exact: true }).setInputFiles(file('mini_open.bin', IMAGE));
  await expect(card.getByText('identical to the firmware file')).toBeVisible();
  await expect(head).not.toContainText('Stop');
  await sitesReadBack(page);
  // All of it is one decision that can be taken back, and given up.
  await press(page, 'Remove all of it');
  await expect(region(page, 'Firmware file')).toHaveCount(0);
  await page.keyboard.press('ControlOrMeta+z');
  await expect(image.getByText(DIGEST)).toBeVisible();
});

test('files that are no image say what is wrong with them, and what was there before stays', async ({ page }) => {
  await openCamera(page, 'Boot room', 'prepare/reflash');
  await press(page, 'Decide: install community firmware');
  const drop = page.getByLabel('Choose the firmware file', { exact: true });
  const zone = page.getByRole('region', { name: 'Drop the firmware file', exact: true });
  await drop.setInputFiles(file('mini_open.bin', IMAGE));
  await expect(region(page, 'Firmware file').getByText(DIGEST)).toBeVisible();
  await drop.setInputFiles(file('none.bin', new Uint8Array()));
  await expect(zone.getByRole('alert')).toContainText('The file is empty');
  // One that grows from when it was chosen until it is read to its end: the browser has it as it was.
  const growing = file('growing.bin', new Uint8Array(300 * 1024 * 1024));
  await drop.setInputFiles(growing);
  appendFileSync(growing, 'and more');
  await expect(zone.getByRole('alert')).toContainText('changed while it was read', { timeout: 20_000 });
  // Cancelled at once, and nothing is taken.
  writeFileSync(growing, new Uint8Array(300 * 1024 * 1024));
  await drop.setInputFiles(growing);
  await zone.getByRole('button', { name: 'Cancel' }).click();
  await expect(zone.getByRole('button', { name: 'Choose the firmware file' })).toBeVisible();
  await expect(region(page, 'Firmware file').getByText(DIGEST)).toBeVisible();

  const writer = new ZipWriter(new BlobWriter(), { useWebWorkers: false });
  await writer.add('fw/mini_open.bin', new Uint8ArrayReader(IMAGE.subarray(0, 70_000)));
  await writer.add('../../climbs.bin', new Uint8ArrayReader(IMAGE.subarray(0, 70)));
  await writer.add('inner.zip', new Uint8ArrayReader(IMAGE.subarray(0, 70)));
  const zip = new Uint8Array(await (await writer.close()).arrayBuffer());
  await drop.setInputFiles(file('download.zip', zip));
  await expect(zone.getByText('leads outside the folder', { exact: false })).toBeVisible();
  await expect(zone.getByRole('button', { name: 'Choose ../../climbs.bin' })).toBeDisabled();
  await expect(zone.getByRole('button', { name: 'Choose inner.zip' })).toBeDisabled();
  await zone.getByRole('button', { name: 'Choose fw/mini_open.bin' }).click();
  await expect(region(page, 'Firmware file').getByText('mini_open.bin in download.zip')).toBeVisible();
  await expect(region(page, 'Firmware file').getByText('70 000 bytes')).toBeVisible();
});

alone(
  'closed in the middle of the wait and opened again, the procedure is where it is, with the right time',
  async ({ context, page }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    await page.clock.install();
    await openCamera(page, 'Boot room', 'prepare/run');
    await press(page, /^Begin: write mini_open.bin/);
    await expect(page.getByRole('button', { name: /^In \d+ s$/ })).toBeDisabled();
    await page.clock.fastForward(11_000);
    await press(page, 'It was unplugged that long');
    await press(page, 'It is inserted');
    await press(page, 'Held, and plugged in');
    const step = (one: Page) => one.getByRole('region', { name: 'Step' });
    await step(page).getByRole('button', { name: 'The firmware file was found' }).click();
    await step(page).getByRole('button', { name: 'It is writing' }).click();
    await expect(page.getByRole('heading', { name: 'It is writing: leave it plugged in' })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Stop here' })).toHaveCount(0);
    const beganMs = await page.evaluate(() => Date.now());
    await page.close({ runBeforeUnload: true });

    const later = await context.newPage();
    await later.clock.install({ time: beganMs + 70_000 });
    await later.goto('/site/alder-mill/camera/boot-room/prepare/run');
    await expect(later.getByRole('heading', { name: 'It is writing: leave it plugged in' })).toBeVisible();
    // two minutes at least, seventy seconds of them gone
    await expect(later.getByRole('timer')).toContainText(/^(4\d|50|51) s/);
    await step(later).getByRole('button', { name: 'Power failed' }).click();
    await expect(later.getByRole('alert')).toContainText('The firmware is written halfway');
    await later.goto('/site/alder-mill/camera/boot-room/prepare');
    await expect(region(later, 'Worst finding')).toContainText('Reflash stopped: recovery needed');
    await later.goto('/site/alder-mill/logbook');
    await expect(later.getByText('Boot room: It is writing: leave it plugged in: Power failed')).toBeVisible();
  },
);

apart(
  'from an empty site: a guide written by hand, a hold that never ends refused, rehearsed on a camera of one’s own',
  async ({ page }) => {
    apart.setTimeout(90_000);
    const world = await startForReal();
    try {
      await page.goto(world.address);
      await page.getByLabel('Name of the site').fill('Barley Farm');
      await press(page, 'Create');
      await page.getByLabel('Name', { exact: true }).fill('Dairy');
      await page.getByLabel('Stream URL or address').fill('127.0.0.1');
      await press(page, 'Add');
      await press(page, /^Site:/);
      await page.getByRole('menuitem', { name: 'Model cards' }).click();
      await press(page, 'Write a model card');
      await page.getByLabel('Model', { exact: true }).fill('Peep 2');
      await page.getByLabel('Local stream').selectOption('after-reflash');
      await press(page, 'Save');
      await page.keyboard.press('Escape');
      await page.getByRole('link', { name: 'Cameras' }).first().click();
      await page.getByRole('checkbox', { name: /Dairy/ }).check();
      await page.getByLabel('Model of all', { exact: true }).selectOption({ label: 'Peep 2' });
      await press(page, 'Set the model of all chosen');
      await page.getByRole('link', { name: 'Dairy', exact: true }).click();
      await page.getByRole('link', { name: /^Prepare/ }).click();
      await expect(region(page, 'Findings').getByText('Firmware not decided')).toBeVisible();
      await page.getByRole('link', { name: 'Reflash bench' }).click();
      await press(page, 'Write it');
      await page.getByLabel('Name of the firmware file on the SD card').fill('peep.img');
      await page.getByLabel('Button held at least, s').fill('99999999');
      await press(page, 'Save');
      await expect(page.getByText(/1 to 120 s, not 99999999/)).toBeVisible();
      await page.getByLabel('Button held at least, s').fill('4');
      await page.getByLabel('Writes at least, s').fill('30');
      await press(page, 'Save');
      await expect(region(page, 'Reflash guide of its model').getByText('peep.img')).toBeVisible();
      await page.getByRole('link', { name: 'Rehearse it' }).click();
      await press(page, 'Time runs 60 times as fast');
      await tryOnce(page, 'blue, slow');
      await writeAndCheck(page);
      await expect(page.getByText('Rehearsed. It is in the logbook.')).toBeVisible();
      await page.goto(page.url().replace('/rehearsal', '/reflash'));
      await expect(region(page, 'Procedure').getByText(/^Rehearsed today/)).toBeVisible();
      // Undone, the guide is gone, and with it what rests on it.
      for (const _ of [1, 2]) await page.keyboard.press('ControlOrMeta+z');
      await sitesReadBack(page);
    } finally {
      world.end();
    }
  },
);
