import { type ChildProcess, spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { expect, type Page, test } from '@playwright/test';
import { readSite } from '../../src/core/document/site-file.ts';
import { storedSites } from '../support/stored-sites.ts';

// What a person does, in their words.

/** To an address of the site that is open, as Back and Forward lead there; the page is opened first where it is not. */
export async function goTo(page: Page, path: string): Promise<void> {
  const { baseURL = '' } = test.info().project.use;
  if (!page.url().startsWith(`${baseURL}/site/`)) return void (await page.goto(path));
  await page.evaluate((to) => {
    history.pushState(null, '', to);
    globalThis.dispatchEvent(new PopStateEvent('popstate'));
  }, path);
}

/** A camera of the demo at a station, by its address; its id is its name. */
export async function openCamera(page: Page, name: string, station = 'tap'): Promise<void> {
  await goTo(page, `/site/alder-mill/camera/${name.toLowerCase().replace(' ', '-')}/${station}`);
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

/** From the station of a camera to another of its own. */
export const toStation = (page: Page, name: string): Promise<void> =>
  page
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: new RegExp(`^${name}`) })
    .click();

/** Asks for a site from the menu, which may be refused. */
export async function askForSite(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Alder Mill' }).click();
  await page.getByRole('menuitem', { name: 'New site' }).click();
  await page.getByLabel('Name of the site').fill(name);
  await page.getByRole('button', { name: 'Create' }).click();
}

/** Begins a site from the menu, and leads to where its first camera is added. */
export async function beginSite(page: Page, name: string): Promise<void> {
  await askForSite(page, name);
  await expect(page.getByRole('dialog')).toHaveCount(0); // what is filled in behind it is not what a person could
}

/** Begins a probe and waits until the camera plays: its address and its login are right. */
export async function probeUntilPlays(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Probe', exact: true }).click();
  await expect(tape(page).getByRole('button', { name: /^play 200/ })).toBeVisible();
}

/** Probes and waits for the verdict; the sample alone takes three seconds. */
export async function probe(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Probe', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Findings' })).toBeVisible({ timeout: 25_000 });
}

export const tape = (page: Page) => page.getByRole('region', { name: 'Connection log' });
export const facts = (page: Page) => page.getByRole('region', { name: 'Facts' });
export const picture = (page: Page) => page.getByText(/^live, \d+\.\d\d s behind$/);
export const fact = (page: Page, name: string) => facts(page).getByRole('row', { name });

export async function savedFile(page: Page, act: () => Promise<void>): Promise<{ name: string; text: string }> {
  const waiting = page.waitForEvent('download');
  await act();
  const download = await waiting;
  return { name: download.suggestedFilename(), text: await readFile(await download.path(), 'utf8') };
}

export async function exportSite(page: Page): Promise<string> {
  const { text } = await savedFile(page, async () => {
    await page.getByRole('button', { name: 'Alder Mill' }).click();
    await page.getByRole('menuitem', { name: 'Export this site' }).click();
  });
  return text;
}

/** A site file apart from what is made anew where one is opened: what passwords are kept under, and permission to look around. */
export const apartFromOpening = (text: string): string =>
  text.replaceAll(/"(secretRef|permit)": *"[^"]*"/g, '"$1": "anew"');

export async function openFile(page: Page, name: string, text: string): Promise<void> {
  await page.getByLabel('Site file').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
}

/** Pastes text into a field as the clipboard would. */
export async function paste(page: Page, field: string, text: string): Promise<void> {
  await page.evaluate((clip) => navigator.clipboard.writeText(clip), text);
  await page.getByLabel(field, { exact: true }).focus();
  await page.keyboard.press('ControlOrMeta+V');
}

/** Every site that lies in the browser is one that can be opened again, whatever was done to it. */
export async function sitesReadBack(page: Page): Promise<void> {
  await page.evaluate(() => globalThis.dispatchEvent(new Event('pagehide'))); // what waits to be written is written
  const sites = await storedSites(page);
  expect(sites.length).toBeGreaterThan(0);
  for (const site of sites) {
    const read = readSite(site);
    expect(read.ok ? null : read.error.message).toBeNull();
  }
}

export const SERVER = fileURLToPath(new URL('../../dist/node/server.mjs', import.meta.url));

export interface DemoServer {
  readonly process: ChildProcess;
  readonly address: string;
  readonly port: string;
  /** Everything it printed so far. */
  readonly output: () => string;
}

/** A demo server of a test's own: one that may be killed, or whose output is read. */
export async function startDemo(port = '0'): Promise<DemoServer> {
  const child = spawn(process.execPath, [SERVER, '--demo', '--port', port, '--exact-port']);
  let output = '';
  const address = await new Promise<string>((resolve, reject) => {
    const take = (chunk: Buffer): void => {
      output += chunk.toString();
      const found = /http:\/\/127\.0\.0\.1:\d+/.exec(output);
      if (found) resolve(found[0]);
    };
    child.stdout.on('data', take);
    child.stderr.on('data', take);
    child.once('exit', () => reject(new Error(`the server did not start: ${output}`)));
  });
  return { process: child, address, port: address.split(':').at(-1) ?? '', output: () => output };
}

export const PASSPHRASE = 'four grey herons wading';

/** Puts the secrets of this visit under a passphrase. */
export async function sealSecrets(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Passwords: this visit' }).click();
  await page.getByLabel('Passphrase', { exact: true }).fill(PASSPHRASE);
  await page.getByLabel('The same again').fill(PASSPHRASE);
  await page.getByRole('button', { name: 'Keep them encrypted' }).click();
  await expect(page.getByRole('button', { name: 'Passwords: unlocked' })).toBeVisible();
}

export async function unlockSecrets(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Passwords: locked' }).click();
  await page.getByLabel('Passphrase', { exact: true }).fill(PASSPHRASE);
  await page.getByRole('button', { name: 'Unlock' }).click();
  await expect(page.getByRole('button', { name: 'Passwords: unlocked' })).toBeVisible();
}

export interface RealWorld {
  /** Of the server, which has no simulated network: it dials for real, here on loopback alone. */
  readonly address: string;
  /** Stream URLs of the stand-ins, logins within: main and sub of each. */
  readonly urls: readonly (readonly string[])[];
  /** Loopback port of the ONVIF of a stand-in, and its main URL, by its name. */
  readonly device: (name: string) => { readonly url: string; readonly onvifPort: number };
  end(): void;
}

/** Clear Tap as `npm start` begins it, and stand-ins beside it that any client can dial. */
export async function startForReal(): Promise<RealWorld> {
  const server = spawn(process.execPath, [SERVER, '--port', '0', '--exact-port']);
  const standins = spawn(process.execPath, [CLI, 'standins', '--json']);
  const firstLine = (child: ChildProcess, wanted: RegExp): Promise<string> =>
    new Promise((resolve, reject) => {
      let output = '';
      child.stdout?.on('data', (chunk: Buffer) => {
        output += chunk.toString();
        const found = wanted.exec(output);
        if (found) resolve(found[0]);
      });
      child.once('exit', () => reject(new Error(`it did not start: ${output}`)));
    });
  const [address, line] = await Promise.all([
    firstLine(server, /http:\/\/127\.0\.0\.1:\d+/),
    firstLine(standins, /^\{.*\}$/m),
  ]);
  const { devices } = JSON.parse(line) as {
    devices: { name: string; rtsp: { url: string }[]; onvif?: { port: number } }[];
  };
  return {
    address,
    urls: devices.map(({ rtsp }) => rtsp.map(({ url }) => url)),
    device: (name) => {
      const found = devices.find((one) => one.name === name);
      return { url: found?.rtsp[0]?.url ?? '', onvifPort: found?.onvif?.port ?? 0 };
    },
    end: () => {
      server.kill();
      standins.kill();
    },
  };
}

const CLI = fileURLToPath(new URL('../../dist/node/cleartap.mjs', import.meta.url));
