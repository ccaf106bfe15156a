import { expect, type Page, test } from '@playwright/test';
import { alderMillSecrets } from '../../src/standins/alder-mill.ts';
import { exportSite, openCamera, PASSPHRASE, probe, savedFile, startDemo } from './steps.ts';

async function protect(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Secrets: this visit' }).click();
  const slip = page.getByRole('dialog', { name: 'Secrets are kept for this visit' });
  await slip.getByLabel('Passphrase').fill('short');
  await slip.getByRole('button', { name: 'Keep them sealed' }).click();
  await expect(slip.getByText('At least 10 characters')).toBeVisible();
  await slip.getByLabel('Passphrase').fill(PASSPHRASE);
  await slip.getByLabel('The same again').fill(PASSPHRASE);
  await slip.getByRole('button', { name: 'Keep them sealed' }).click();
  await expect(page.getByRole('button', { name: 'Secrets: open' })).toBeVisible();
}

test('secrets outlast the page under a passphrase: locked after a reload, opened by the right words alone', async ({
  page,
}) => {
  test.setTimeout(60_000);
  await page.goto('/');
  await protect(page);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Secrets: locked' })).toBeVisible();
  await openCamera(page, 'Sluice rail');
  await expect(page.getByText('Secrets are locked: unlock them at the top')).toBeVisible();
  await page.getByRole('button', { name: 'Probe', exact: true }).click(); // asks for the passphrase, not the camera
  const slip = page.getByRole('dialog', { name: 'Secrets are locked' });
  await slip.getByLabel('Passphrase').fill('four grey herons walking');
  await slip.getByRole('button', { name: 'Unlock' }).click();
  await expect(slip.getByText('This passphrase does not open them.')).toBeVisible();
  await slip.getByLabel('Passphrase').fill(PASSPHRASE);
  await slip.getByRole('button', { name: 'Unlock' }).click();
  await expect(page.getByRole('button', { name: 'Secrets: open' })).toBeVisible();
  await probe(page);
  await expect(page.getByText('Nothing to fix in this stream.')).toBeVisible();

  await page.getByRole('button', { name: 'Secrets: open' }).click();
  await page.getByRole('button', { name: 'Lock now' }).click();
  await expect(page.getByText('Secrets are locked: unlock them at the top')).toBeVisible();

  await page.getByRole('button', { name: 'Secrets: locked' }).click();
  await page.getByRole('button', { name: 'Forget all secrets' }).click();
  await page.getByRole('button', { name: 'Forget them' }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Secrets: this visit' })).toBeVisible();
});

test('left alone, open secrets lock; the clock decides, since a sleeping laptop stops timers', async ({ page }) => {
  await page.clock.install();
  await page.goto('/');
  await protect(page);
  await page.clock.fastForward(9 * 60_000);
  await expect(page.getByRole('button', { name: 'Secrets: open' })).toBeVisible();
  await page.mouse.click(5, 300);
  await page.clock.fastForward(9 * 60_000);
  await expect(page.getByRole('button', { name: 'Secrets: open' })).toBeVisible();
  await page.clock.fastForward(2 * 60_000);
  await expect(page.getByRole('button', { name: 'Secrets: locked' })).toBeVisible();
});

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

test('a whole visit leaves no secret in any output', async ({ page }) => {
  test.setTimeout(90_000);
  const heard: { where: string; text: string }[] = [];
  page.on('console', (message) => heard.push({ where: 'console', text: message.text() }));
  page.on('pageerror', (error) => heard.push({ where: 'error', text: String(error) }));
  page.on('framenavigated', (frame) => heard.push({ where: 'address', text: frame.url() }));
  page.on('request', (request) => heard.push({ where: 'request line', text: request.url() }));
  page.on('response', async (response) => {
    if (response.url().endsWith('/api/demo')) return; // how the demo's made-up secrets come at all
    const text = await response.text().catch(() => '');
    heard.push({ where: `answer of ${new URL(response.url()).pathname}`, text });
  });

  const server = await startDemo();
  await page.goto(server.address);
  await protect(page);
  await page.getByRole('link', { name: 'Sluice rail', exact: true }).click();
  await probe(page);
  await page.getByRole('button', { name: 'Open the exchange' }).click();
  heard.push({ where: 'wire tape', text: await shown(page) });
  await page.getByRole('button', { name: 'Tap it' }).click();
  await page.getByRole('link', { name: /Its sheet/ }).click();
  heard.push({ where: 'sheet', text: await shown(page) });
  for (const kind of ['CSV', 'YAML', 'M3U8', 'XSPF'])
    heard.push({
      where: kind,
      text: (await savedFile(page, () => page.getByRole('button', { name: `Save as ${kind}` }).click())).text,
    });
  await page.getByRole('button', { name: /^Entered at/ }).click();
  await page.keyboard.press('r');
  await page.getByRole('link', { name: 'Linen stair', exact: true }).click(); // Basic: the secret itself crosses the wire
  await page.getByLabel('Path', { exact: true }).fill('/video.mjpg');
  await probe(page);
  await page.getByRole('button', { name: 'Open the exchange' }).click();
  heard.push({ where: 'wire tape of Basic', text: await shown(page) });
  await page.getByRole('link', { name: 'Logbook' }).click();
  heard.push({ where: 'logbook', text: await shown(page) });
  heard.push({ where: 'site file', text: await exportSite(page) });
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  heard.push({ where: 'store', text: await stored(page) });
  server.process.kill('SIGTERM');
  await new Promise((resolve) => server.process.once('exit', resolve));
  heard.push({ where: 'server', text: server.output() });

  const forms = (secret: string): string[] => [
    secret,
    encodeURIComponent(secret),
    Buffer.from(secret).toString('base64').replace(/=+$/, ''),
  ];
  const basic = Buffer.from('linen:starch&press 2').toString('base64');
  const secrets = [...Object.values(alderMillSecrets()).flatMap(forms), basic, PASSPHRASE];
  expect(heard.map(({ where }) => where)).toEqual(expect.arrayContaining(['store', 'wire tape of Basic', 'site file']));
  const leaks = heard.filter(({ text }) => secrets.some((secret) => text.includes(secret))).map(({ where }) => where);
  expect(leaks).toEqual([]);
  // The search finds what is there: the same stores do hold the account and the sealed vault.
  expect(heard.find(({ where }) => where === 'store')?.text).toContain('mill-viewer');
  expect(heard.find(({ where }) => where === 'store')?.text).toContain('clear-tap/vault');
});

test('one act shows one secret, and shows it only for a while', async ({ page }) => {
  await openCamera(page, 'Sluice rail');
  await page.getByRole('button', { name: 'Tap it' }).click();
  await page.getByRole('link', { name: /Its sheet/ }).click();
  await page.clock.install();
  const secret = alderMillSecrets()['secret-sluice-rail'] ?? 'none';
  await expect(page.getByText(secret)).toHaveCount(0);
  await page.getByRole('button', { name: 'Show the secret' }).click();
  await expect(page.getByText(secret, { exact: true })).toBeVisible();
  await page.clock.fastForward(21_000);
  await expect(page.getByText(secret)).toHaveCount(0);
});
