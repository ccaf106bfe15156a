import type { Page } from '@playwright/test';
import type { FaultyCamera } from './faulty-camera.ts';

/** What somebody changes in an exported site file, so that the next who opens it sends a password to him. */
export interface Trap {
  readonly why: string;
  /** The site goes under the id that it had, and so takes the place of the one that is here. */
  readonly keepsId: boolean;
  readonly path: string;
}
export const TRAPS: readonly Trap[] = [
  { why: 'the same site with another port', keepsId: true, path: '/live' },
  { why: 'another site with the same references', keepsId: false, path: '/live' },
  { why: 'a path that takes the password unasked', keepsId: true, path: '/{user}/{password}' },
];

interface SiteLike {
  readonly id: string;
  readonly cameras: readonly { readonly ports: object; readonly streams: readonly object[] }[];
}

/** The file as it is prepared: everything as it was, but for where the camera is said to be. */
export function prepared(text: string, thief: Pick<FaultyCamera, 'port'>, { keepsId, path }: Trap): string {
  const site: SiteLike = JSON.parse(text);
  return JSON.stringify({
    ...site,
    id: keepsId ? site.id : 'site-of-somebody',
    cameras: site.cameras.map((camera) => ({
      ...camera,
      ports: { ...camera.ports, rtsp: thief.port },
      streams: camera.streams.map((stream) => ({ ...stream, path })),
    })),
  });
}

/** Begins a site by hand with one camera, as its URL was pasted; leads to where it is probed. */
export async function beginWith(page: Page, address: string, url: string): Promise<void> {
  await page.goto(address);
  await page.getByLabel('Name of the site').fill('Tarn House');
  await page.getByRole('button', { name: 'Create' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Ferry gate');
  await page.getByLabel('Stream URL or address').fill(url);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('heading', { name: 'Ferry gate', level: 1 }).waitFor();
}

/** Opens a prepared file, and leads to its camera at Tap. */
export async function openPrepared(page: Page, text: string, isReplaced: boolean): Promise<void> {
  await page
    .getByLabel('Site file')
    .setInputFiles({ name: 'x.cleartap.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  if (isReplaced) await page.getByRole('button', { name: 'Replace with the file' }).click();
  await page.getByRole('link', { name: 'Ferry gate', exact: true }).click();
  const tap = page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /^Tap/ });
  if (await tap.isVisible()) await tap.click();
  await page.getByLabel('Path', { exact: true }).waitFor();
}
