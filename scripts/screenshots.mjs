// `npm run screenshots`: one current picture of each main view, made from the demo data, into docs/screenshots.
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { ensureBuilt } from './ensure-built.mjs';
import { CHROMIUM, ensureDebian, root } from './ensure-installed.mjs';

ensureBuilt('web', 'node');
ensureDebian(CHROMIUM);
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
  executablePath: CHROMIUM.program,
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
const DESK = { viewport: { width: 1280, height: 800 } };
const PHONE = { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true };

async function open(options) {
  const context = await browser.newContext({ reducedMotion: 'reduce', colorScheme: 'light', ...options });
  const page = await context.newPage();
  await page.goto(address);
  await page.getByRole('heading', { name: 'Cameras' }).waitFor();
  return page;
}
/** What a worker or a chart draws comes a moment after the page. */
const settled = (page) => page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 900)));
const shoot = (page, name) => page.screenshot({ path: join(folder, `${name}.png`) });

async function probe(page, camera) {
  await page.getByRole('link', { name: 'Cameras' }).first().click();
  await page.getByRole('link', { name: camera, exact: true }).click();
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /^Tap/ }).click();
  await page.getByRole('button', { name: 'Probe', exact: true }).click();
  await page.getByText(/^live, .* behind$/).waitFor({ timeout: 20_000 });
}

async function workThrough(page) {
  await probe(page, 'Sluice rail');
  await page.getByRole('button', { name: 'Tap it' }).click();
  await page.getByRole('link', { name: /Its sheet/ }).click();
  await page.getByRole('heading', { name: /Sluice rail for/ }).waitFor();
}

/** What was said to an old box, line by line, with the line that decided it. */
async function shootTape(page) {
  await page.goto(`${address}site/alder-mill/camera/linen-stair/tap`);
  await page.getByRole('button', { name: 'Probe', exact: true }).click();
  await page.getByRole('region', { name: 'Findings' }).waitFor({ timeout: 30_000 });
  await page.getByRole('button', { name: /^authenticate 404/ }).click();
  await page.getByText('this decides it').waitFor();
  await page.getByRole('region', { name: 'Connection log' }).evaluate((tape) => tape.scrollIntoView());
  await page.mouse.move(0, 0);
  await settled(page);
  await shoot(page, 'connection-log');
}

/** Faults taken, one of them for another. */
async function shootFaults(page) {
  await page.goto(`${address}site/alder-mill/faults`);
  const take = async (device, guess) => {
    await page.getByRole('list', { name: 'Devices' }).getByRole('button', { name: device }).click();
    await page.getByRole('button', { name: 'Probe it', exact: true }).click();
    await page.getByRole('region', { name: 'What is wrong?' }).waitFor({ timeout: 30_000 });
    await page
      .getByRole('region', { name: 'What is wrong?' })
      .getByRole('button', { name: guess, exact: true })
      .click();
  };
  await take(/Flax loft/, 'RTSP on another port');
  await take(/Goose run/, 'Connection closed by the camera');
  await take(/Oast stair/, 'Account or password refused');
  await page.evaluate(() => scrollTo(0, 0));
  await page.mouse.move(0, 0);
  await settled(page);
  await shoot(page, 'faults');
}

/** How a camera is prepared: accounts and settings, the bench for another firmware, and a rehearsal of it. */
async function shootPrepare(page) {
  const at = `${address}site/alder-mill/camera/boot-room/prepare`;
  await page.goto(at);
  await page.getByRole('heading', { name: 'Settings at the camera' }).waitFor();
  await settled(page);
  await shoot(page, 'prepare');
  await page.getByRole('link', { name: 'Rehearse it' }).click();
  const press = (name) => page.getByRole('button', { name, exact: true }).click();
  await press('Time runs 10 times as fast');
  await press('Unplug it');
  await press('It was unplugged that long');
  await page.getByLabel('Name of its file').fill('mini_open.bin.txt');
  for (const act of ['Insert the SD card', 'It is inserted', 'Hold the button', 'Plug it in', 'Held, and plugged in'])
    await press(act);
  await settled(page);
  await page.getByText('Why it does that').click();
  await page.mouse.move(0, 0);
  await shoot(page, 'rehearsal');
}

/** The house's addresses after a look through them, and what a power cut does to those that nobody reserved. */
async function shootNetwork(page) {
  const look = async () => {
    await page.getByRole('tab', { name: 'Scan' }).click();
    await page.getByLabel('Connections a second').fill('1000');
    await page.getByRole('region', { name: 'Scan it' }).getByRole('button').click();
    await page.getByText(/addresses in .* s/).waitFor({ timeout: 30_000 });
  };
  await page.goto(`${address}site/alder-mill/network`);
  await look();
  await page.getByRole('tab', { name: 'Addresses' }).click();
  await page.mouse.move(0, 0);
  await settled(page);
  await shoot(page, 'network');
  await page.getByRole('tab', { name: 'Router' }).click();
  await page.getByRole('button', { name: 'Cut the power' }).click();
  await page.getByText('is back').waitFor();
  await look();
  await page.evaluate(() => scrollTo(0, 230));
  await settled(page);
  await shoot(page, 'scan');
}

/** A ten-year-old box as ONVIF shows it. */
async function shootPassport(page) {
  await page.goto(`${address}site/alder-mill/camera/linen-stair/tap/onvif`);
  await page.getByRole('button', { name: 'Read it by ONVIF' }).click();
  await page.getByRole('list', { name: 'Services' }).waitFor({ timeout: 30_000 });
  await page.mouse.move(0, 0);
  await settled(page);
  await shoot(page, 'device-report');
}

/** A head in hand: it was turned by angle, and looks at the wheel. */
async function shootSteer(page) {
  await page.goto(`${address}site/alder-mill/camera/sluice-rail/tap/steer`);
  await page.getByText('at rest', { exact: true }).waitFor();
  await page.getByText(/^live, /).waitFor({ timeout: 20_000 });
  await page.getByLabel('Name of this preset').fill('Straight on');
  await page.getByRole('button', { name: 'Save the present position' }).click();
  await page.getByRole('button', { name: 'Go to Straight on' }).waitFor();
  await page.getByRole('button', { name: 'Turn', exact: true }).click();
  await page.getByText(/It reports 30\.0° · asked 30\.0°/).waitFor();
  await page.mouse.move(0, 0);
  await settled(page);
  await shoot(page, 'ptz');
}

/** Boot room as it is once it was reflashed: what the other pictures show of it. */
async function reflashBootRoom() {
  const { inputs } = JSON.parse(readFileSync(join(root, 'tests/fixtures/scripts/boot-room.json'), 'utf8'));
  await fetch(`${address}api/standin`, {
    method: 'POST',
    headers: { 'x-clear-tap': '1', 'Content-Type': 'application/json' },
    body: JSON.stringify({ host: '10.77.4.27', account: null, inputs }),
  });
}

try {
  await shootPrepare(await open(DESK));
  await reflashBootRoom();
  const desk = await open(DESK);
  await workThrough(desk);
  await shoot(desk, 'hand-over');
  await desk.getByRole('button', { name: /^Entered at/ }).click();
  await probe(desk, 'Boot room');
  await shoot(desk, 'tap');
  await desk.getByRole('link', { name: 'Cameras' }).click();
  await desk.getByRole('button', { name: /^Use a panel .*: Bee stand$/ }).waitFor(); // remedies are tried one after the other
  await shoot(desk, 'cameras');
  await desk.getByRole('link', { name: 'Logbook' }).click();
  await desk.getByRole('heading', { name: 'Logbook' }).waitFor();
  await shoot(desk, 'logbook');

  await desk.keyboard.press('/');
  await desk.getByRole('combobox', { name: 'Find' }).fill('stair');
  await desk
    .getByRole('option', { name: /Linen stair/ })
    .first()
    .waitFor();
  await desk.keyboard.press('Enter');
  await shootPassport(desk);
  await shootSteer(desk);
  await shootFaults(desk);

  const planning = await open(DESK);
  await planning.getByRole('link', { name: 'Orchard track', exact: true }).click();
  await planning.getByRole('img', { name: /^Pellam B4 Z, optical/ }).waitFor();
  await settled(planning);
  await shoot(planning, 'choose');
  await planning
    .getByRole('button', { name: /Pellam B4 Z$/ })
    .first()
    .click();
  await planning.getByRole('button', { name: 'Choose Pellam B4 Z' }).click();
  await planning.getByRole('link', { name: /^Power/ }).click();
  await planning.getByText('PoE budget exceeded: Wheel switch').first().waitFor();
  await planning.evaluate(() => scrollTo(0, 0));
  await settled(planning);
  await shoot(planning, 'power');
  await planning.getByRole('link', { name: 'Cameras' }).first().click();
  await planning.getByRole('link', { name: 'Bee stand', exact: true }).click();
  await planning.getByRole('img', { name: /Too little in/ }).waitFor();
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
  await shootTape(dark);

  const phone = await open(PHONE);
  await shoot(phone, 'cameras-phone');
  await phone.goto(`${address}site/alder-mill/camera/boot-room/prepare/run`);
  await phone.getByRole('button', { name: /^Begin: write/ }).click();
  await phone.getByRole('button', { name: 'It was unplugged that long' }).click({ timeout: 15_000 });
  await phone.getByRole('button', { name: 'It is inserted' }).click();
  await phone.getByRole('button', { name: 'Held, and plugged in' }).click();
  await phone.evaluate(() => new Promise((resolve) => setTimeout(resolve, 2200)));
  await shoot(phone, 'run-phone');
  await shootNetwork(await open(DESK)); // last of all: a power cut moves cameras
} finally {
  await browser.close();
  server.kill('SIGTERM');
}
