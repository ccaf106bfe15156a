import { readFile } from 'node:fs/promises';
import { SERVER_LOG } from '../../playwright.config.ts';
import { alderMillSecrets } from '../../src/standins/alder-mill.ts';
import { alone, apart, expect, type Page, test } from './browser.ts';
import { exportSite, openCamera, PASSPHRASE, probe, probeUntilPlays, savedFile } from './steps.ts';

async function protect(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Passwords: this visit' }).click();
  const slip = page.getByRole('dialog', { name: 'Passwords are kept for this visit' });
  await slip.getByLabel('Passphrase', { exact: true }).fill('short');
  await slip.getByRole('button', { name: 'Keep them encrypted' }).click();
  await expect(slip.getByText('At least 10 characters')).toBeVisible();
  await slip.getByLabel('Passphrase', { exact: true }).fill(PASSPHRASE);
  await slip.getByLabel('The same again').fill(PASSPHRASE);
  await slip.getByRole('button', { name: 'Keep them encrypted' }).click();
  await expect(page.getByRole('button', { name: 'Passwords: unlocked' })).toBeVisible();
}

test('secrets outlast the page under a passphrase: opened by the right words alone, locked and forgotten by a press', async ({
  page,
}) => {
  await openCamera(page, 'Sluice rail');
  await protect(page);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Passwords: locked' })).toBeVisible();
  await expect(page.getByText('Passwords are locked: unlock them at the top')).toBeVisible();
  await page.getByRole('button', { name: 'Probe', exact: true }).click(); // asks for the passphrase, not the camera
  const slip = page.getByRole('dialog', { name: 'Passwords are locked' });
  await slip.getByLabel('Passphrase', { exact: true }).fill('four grey herons walking');
  await slip.getByRole('button', { name: 'Unlock' }).click();
  await expect(slip.getByText('This passphrase is wrong.')).toBeVisible();
  await slip.getByLabel('Passphrase', { exact: true }).fill(PASSPHRASE);
  await slip.getByRole('button', { name: 'Unlock' }).click();
  await expect(page.getByRole('button', { name: 'Passwords: unlocked' })).toBeVisible();
  await probeUntilPlays(page);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: 'Passwords: unlocked' }).click();
  await page.getByRole('button', { name: 'Lock now' }).click();
  await expect(page.getByText('Passwords are locked: unlock them at the top')).toBeVisible();
  await page.getByRole('button', { name: 'Passwords: locked' }).click();
  await page.getByRole('button', { name: 'Delete all passwords' }).click();
  await page.getByRole('button', { name: 'Delete them' }).click();
  await expect(page.getByRole('button', { name: 'Passwords: this visit' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Passwords: this visit' })).toBeVisible();
});

apart(
  'one act shows one secret, and only for a while; left alone, open secrets lock by the clock',
  async ({ page }) => {
    await test.step('one act shows one secret, and shows it only for a while', async () => {
      await openCamera(page, 'Sluice rail');
      await page.getByRole('button', { name: 'Tap it' }).click();
      await page.getByRole('link', { name: /Its sheet/ }).click();
      await page.clock.install();
      const secret = alderMillSecrets()['secret-sluice-rail'] ?? 'none';
      await expect(page.getByText(secret)).toHaveCount(0);
      await page.getByRole('button', { name: 'Show the password' }).click();
      await expect(page.getByText(secret, { exact: true })).toBeVisible();
      await page.clock.fastForward(21_000);
      await expect(page.getByText(secret)).toHaveCount(0);
    });
    await test.step('left alone, open secrets lock; the clock decides, since a sleeping laptop stops timers', async () => {
      await protect(page);
      await page.clock.fastForward(9 * 60_000);
      await expect(page.getByRole('button', { name: 'Passwords: unlocked' })).toBeVisible();
      await page.mouse.click(5, 300);
      await page.clock.fastForward(9 * 60_000);
      await expect(page.getByRole('button', { name: 'Passwords: unlocked' })).toBeVisible();
      await page.clock.fastForward(2 * 60_000);
      await expect(page.getByRole('button', { name: 'Passwords: locked' })).toBeVisible();
    });
  },
);

const shown = async (page: Page): Promise<string> => (await page.locator('body').textContent()) ?? '';

/** Everything the browser keeps of this page, as text: both databases with what is in them. */
const stored = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const texts: string[] = [JSON.stringify({ ...localStorage }), JSON.stringify({ ...sessionStorage })];
    const asText = (value: unknown): string =>
      JSON.stringify(value, (_, part: unknown) => (part instanceof Uint8Array ? String.fromCharCode(...part) : part)) ??
      '';
    for (const { name } of await indexedDB.databases()) {
      const database = await new Promise<IDBDatabase>((resolve, reject) => {
        const request = indexedDB.open(name ?? '');
        request.onsuccess = () => resolve(request.result);
        request.onerror = () => reject(request.error);
      });
      for (const storeName of database.objectStoreNames)
        texts.push(
          await new Promise<string>((resolve, reject) => {
            const request = database.transaction(storeName).objectStore(storeName).getAll();
            request.onsuccess = () => resolve(asText(request.result));
            request.onerror = () => reject(request.error);
          }),
        );
      database.close();
    }
    return texts.join('\n');
  });

interface Heard {
  readonly where: string;
  readonly text: string;
}

/** Everything that a page says, asks and is answered, from here on. */
function listen(page: Page): Heard[] {
  const heard: Heard[] = [];
  page.on('console', (message) => heard.push({ where: 'console', text: message.text() }));
  page.on('pageerror', (error) => heard.push({ where: 'error', text: String(error) }));
  page.on('framenavigated', (frame) => heard.push({ where: 'address', text: frame.url() }));
  page.on('request', (request) => heard.push({ where: 'request line', text: request.url() }));
  page.on('response', async (response) => {
    if (response.url().endsWith('/api/demo')) return; // how the demo's made-up secrets come at all
    const text = await response.text().catch(() => '');
    heard.push({ where: `answer of ${new URL(response.url()).pathname}`, text });
  });
  return heard;
}

const BASIC = Buffer.from('linen:starch&press 2').toString('base64');
const FORMS = [
  ...Object.values(alderMillSecrets()).flatMap((secret) => [
    secret,
    encodeURIComponent(secret),
    Buffer.from(secret).toString('base64').replace(/=+$/, ''),
  ]),
  BASIC,
  PASSPHRASE,
];
const leaks = (heard: readonly Heard[]): string[] =>
  heard.filter(({ text }) => FORMS.some((secret) => text.includes(secret))).map(({ where }) => where);

alone('a visit from probe to hand-over leaves no secret in any output', async ({ page }) => {
  const heard = listen(page);
  await openCamera(page, 'Sluice rail');
  await probe(page);
  await page.getByRole('button', { name: 'Open the exchange' }).click();
  heard.push({ where: 'connection log', text: await shown(page) });
  await page.getByRole('button', { name: 'Tap it' }).click();
  await page.getByRole('link', { name: /Its sheet/ }).click();
  heard.push({ where: 'sheet', text: await shown(page) });
  for (const kind of ['CSV', 'YAML', 'M3U8', 'XSPF'])
    heard.push({
      where: kind,
      text: (await savedFile(page, () => page.getByRole('button', { name: `Save as ${kind}` }).click())).text,
    });
  await page.getByRole('button', { name: /^Entered at/ }).click();
  await page.getByRole('link', { name: 'Logbook' }).click();
  heard.push({ where: 'logbook', text: await shown(page) });
  expect(leaks(heard)).toEqual([]);
});

alone('a login that crosses the wire readable leaves no secret in file, store or server', async ({ page }) => {
  const heard = listen(page);
  await openCamera(page, 'Linen stair');
  await protect(page);
  await page.getByLabel('Path', { exact: true }).fill('/video.mjpg');
  await probe(page);
  await page.getByRole('button', { name: 'Open the exchange' }).click();
  heard.push({ where: 'connection log of Basic', text: await shown(page) });
  heard.push({ where: 'site file', text: await exportSite(page) });
  await page.evaluate(() => globalThis.dispatchEvent(new Event('pagehide')));
  await expect.poll(() => stored(page)).toContain('/video.mjpg');
  heard.push({ where: 'store', text: await stored(page) });
  heard.push({ where: 'server', text: await readFile(SERVER_LOG, 'utf8') });

  expect(leaks(heard)).toEqual([]);
  // The search finds what is there: the same store does hold the account and the sealed vault.
  const store = heard.find(({ where }) => where === 'store')?.text;
  expect(store).toContain('"linen"');
  expect(store).toContain('clear-tap/vault');
  expect(heard.find(({ where }) => where === 'server')?.text).toContain('127.0.0.1');
});
