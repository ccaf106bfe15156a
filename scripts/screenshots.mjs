// `npm run screenshots`: one current picture of each main view, made from the demo data, into docs/screenshots.
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { ensureBuilt } from './ensure-built.mjs';
import { chromium, ensureDebian, root } from './ensure-installed.mjs';

ensureBuilt('web', 'node');
ensureDebian('chromium', chromium);
const { chromium: browserType } = await import('@playwright/test');
const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });

const server = spawn(process.execPath, [join(root, 'dist/node/server.mjs'), '--demo', '--port', '0']);
let address = '';
for await (const line of createInterface(server.stdout)) {
  address = /http:\S+/.exec(line)?.[0] ?? '';
  if (address) break;
}

const browser = await browserType.launch({
  executablePath: chromium,
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
/** A list as somebody kept it for years, one row of it wrong. */
const LIST = Buffer.from(
  [
    'Password;Where;IP address;Camera name;Weight;Path',
    'hop&5;Wheel pit;10.77.4.51;Wheel pit;2;/live',
    ';Malt floor;10.77.4.52;Malt floor;1;live',
    ';Yard;10.77.4.53;Yard gate;1;/live',
  ].join('\r\n'),
);
const DESK = { viewport: { width: 1280, height: 800 } };
const PHONE = { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true };

async function open(options) {
  const context = await browser.newContext({ reducedMotion: 'reduce', colorScheme: 'light', ...options });
  const page = await context.newPage();
  await page.goto(address);
  await page.getByRole('heading', { name: 'Round' }).waitFor();
  return page;
}
/** What a worker or a chart draws comes a moment after the page. */
const settled = (page) => page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 900)));
const shoot = (page, name) => page.screenshot({ path: join(folder, `${name}.png`) });

async function probe(page, camera) {
  await page.getByRole('link', { name: 'Round' }).first().click();
  await page.getByRole('link', { name: camera, exact: true }).click();
  await page.getByRole('button', { name: 'Probe', exact: true }).click();
  await page.getByText(/^live, .* behind$/).waitFor({ timeout: 20_000 });
}

async function workThrough(page) {
  await probe(page, 'Sluice rail');
  await page.getByRole('button', { name: 'Tap it' }).click();
  await page.getByRole('link', { name: /Its sheet/ }).click();
  await page.getByRole('heading', { name: /Sluice rail for/ }).waitFor();
}

/** What the user knows of models, and what a recorder takes: its figures, seats and disk. */
async function shootThings(page) {
  await page.getByRole('button', { name: 'Site: Alder Mill' }).click();
  await page.getByRole('menuitem', { name: 'Model cards' }).click();
  await page.getByRole('list', { name: 'Model cards' }).waitFor();
  await page.mouse.move(0, 0);
  await shoot(page, 'cards');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Round' }).first().click();
  await page.getByRole('link', { name: 'Sluice rail', exact: true }).click();
  await page.getByRole('link', { name: /^Tap/ }).click();
  await page.getByRole('button', { name: 'Change Loft store' }).click();
  await page.getByRole('dialog', { name: 'Loft store' }).waitFor();
  await shoot(page, 'destination');
  await page.keyboard.press('Escape');
}

try {
  const desk = await open(DESK);
  await workThrough(desk);
  await shoot(desk, 'hand-over');
  await desk.getByRole('button', { name: /^Entered at/ }).click();
  await probe(desk, 'Boot room');
  await shoot(desk, 'tap');
  await desk.getByRole('link', { name: 'Round' }).click();
  await desk.getByRole('row', { name: /Boot room/ }).waitFor();
  await shoot(desk, 'round');
  await desk.getByRole('link', { name: 'Logbook' }).click();
  await desk.getByRole('heading', { name: 'Logbook' }).waitFor();
  await shoot(desk, 'logbook');

  await desk.keyboard.press('/');
  await desk.getByRole('combobox', { name: 'Find' }).fill('stair');
  await desk
    .getByRole('option', { name: /Linen stair/ })
    .first()
    .waitFor();
  await shoot(desk, 'find');
  await desk.keyboard.press('Enter');
  await desk.getByLabel('Path', { exact: true }).fill('/video.mjpg');
  await desk.getByRole('button', { name: 'Probe', exact: true }).click();
  await desk.getByText('Its clock is 8 years slow').first().waitFor({ timeout: 20_000 });
  await desk.getByText(/^live, .* behind$/).waitFor({ timeout: 20_000 });
  await desk.evaluate(() => scrollTo(0, 0));
  await shoot(desk, 'old-box');
  await shootThings(desk);
  await desk.getByLabel('Camera list').setInputFiles({ name: 'old list.csv', mimeType: 'text/csv', buffer: LIST });
  await desk.getByRole('dialog', { name: 'Cameras of old list.csv' }).waitFor();
  await shoot(desk, 'import');

  const planning = await open(DESK);
  await planning.getByRole('link', { name: 'Orchard track', exact: true }).click();
  await planning.getByRole('img', { name: /^Pellam B4 Z, optical/ }).waitFor();
  await settled(planning);
  await shoot(planning, 'choose');
  await planning
    .getByRole('button', { name: /Pellam B4 Z$/ })
    .first()
    .click();
  await planning.getByRole('heading', { name: 'What it would look like' }).scrollIntoViewIfNeeded();
  await planning.mouse.wheel(0, 130);
  await settled(planning);
  await shoot(planning, 'optics');
  await planning.getByRole('button', { name: 'Choose Pellam B4 Z' }).click();
  await planning.getByRole('link', { name: /^Power/ }).click();
  await planning.getByText('Wheel switch is over its budget').first().waitFor();
  await planning.evaluate(() => scrollTo(0, 0));
  await settled(planning);
  await shoot(planning, 'power');
  await planning.getByRole('link', { name: 'Round' }).first().click();
  await planning.getByRole('link', { name: 'Bee stand', exact: true }).click();
  await planning.getByRole('img', { name: /It brings less in/ }).waitFor();
  await settled(planning);
  await shoot(planning, 'power-sun');
  await planning.getByRole('link', { name: 'Plan' }).first().click();
  await planning.getByRole('application').waitFor();
  await settled(planning);
  await shoot(planning, 'plan');
  await planning.getByRole('link', { name: 'Cost' }).first().click();
  await planning.getByRole('img', { name: /What each option has cost/ }).waitFor();
  await settled(planning);
  await shoot(planning, 'cost');

  const dark = await open({ ...DESK, colorScheme: 'dark' });
  await probe(dark, 'Boot room');
  await shoot(dark, 'tap-dark');

  const phone = await open(PHONE);
  await shoot(phone, 'round-phone');
  await probe(phone, 'Boot room');
  await shoot(phone, 'tap-phone');
  await phone.getByRole('link', { name: 'Round' }).last().click();
  await phone.getByRole('link', { name: 'Orchard track', exact: true }).click();
  await phone.getByRole('heading', { name: 'From the side, to scale' }).scrollIntoViewIfNeeded();
  await phone.evaluate(() => scrollBy(0, 420));
  await settled(phone);
  await shoot(phone, 'optics-phone');
} finally {
  await browser.close();
  server.kill('SIGTERM');
}
