import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { type Browser, type BrowserContext, chromium, type Page } from '@playwright/test';
import { readSite } from '../../src/core/document/site-file.ts';
import { startFaultyCamera } from '../support/faulty-camera.ts';
import type { RunningServer } from '../support/running-server.ts';
import { storedSites } from '../support/stored-sites.ts';
import type { Random } from './random.ts';
import { Found, stands } from './server-attack.ts';

const LAUNCH = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
};
export const launch = (): Promise<Browser> => chromium.launch(LAUNCH);

/** A page of another site, in the browser of the person, with everything that such a page can do. */
export async function attackByForeignPage(browser: Browser, server: RunningServer, random: Random): Promise<void> {
  const camera = await startFaultyCamera({});
  const evil = createServer((_, response) =>
    response.setHeader('content-type', 'text/html').end('<!doctype html>evil'),
  );
  await new Promise<void>((resolve) => evil.listen(0, '127.0.0.1', resolve));
  const { port } = evil.address() as AddressInfo; // a TCP server's address is an object
  const page = await browser.newPage();
  await page.goto(`http://localhost:${port}/`);
  const paths = ['//', '/', '/api/live', '/api/probe', '/%', `/${'x'.repeat(random.below(4000))}`, '/api/live?x=%ff'];
  const body = JSON.stringify({
    url: camera.url,
    user: 'a',
    secret: 'b',
    seconds: 1,
    timeoutMs: 500,
    media: true,
    transport: 'auto',
  });
  const told = await page.evaluate(
    async ({ own, targets, text, protocol }) => {
      const got: string[] = [];
      const tries = targets.flatMap((path) => [
        fetch(`http://${own}${path}`, { method: 'POST', body: text, mode: 'no-cors' }).then((answer) =>
          got.push(answer.type),
        ),
        fetch(`http://${own}${path}`, { method: 'POST', body: text, headers: { 'x-clear-tap': '1' } }).then((answer) =>
          got.push(`READ ${answer.status}`),
        ),
        new Promise<void>((resolve) => {
          try {
            const socket = new WebSocket(`ws://${own}${path}`, protocol);
            socket.onopen = () => {
              got.push('READ socket');
              socket.send(text);
            };
            socket.onclose = () => resolve();
            setTimeout(() => socket.close(), 300);
          } catch {
            resolve();
          }
        }),
      ]);
      const frame = document.createElement('iframe');
      frame.src = `http://${own}/`;
      document.body.append(frame);
      await Promise.allSettled(tries);
      return got;
    },
    {
      own: `127.0.0.1:${server.port}`,
      targets: paths,
      text: body,
      protocol: random.once(2) ? ['clear-tap.live.1'] : [],
    },
  );
  await page.close();
  evil.close();
  const dialled = camera.dialled();
  await camera.close();
  if (dialled > 0) throw new Found('a foreign page made the server dial a camera');
  if (told.some((one) => one.startsWith('READ'))) throw new Found(`a foreign page read an answer: ${told.join(', ')}`);
  await stands(server, 'a foreign page');
}

/** What lies in the browser of the demo's site, as it would be opened. */
const storedRecord = async (page: Page): Promise<unknown> =>
  (await storedSites(page)).find((site) => (site as { id?: string }).id === 'alder-mill');

/** Edits in one or two windows, closed at random moments: what was typed last is there again, and every record opens. */
export async function attackWindows(browser: Browser, demo: RunningServer, random: Random): Promise<void> {
  const context: BrowserContext = await browser.newContext();
  const open = async (): Promise<Page> => {
    const page = await context.newPage();
    page.on('dialog', (dialog) => void dialog.accept());
    await page.goto(`http://127.0.0.1:${demo.port}/site/alder-mill/camera/sluice-rail/tap`);
    await page.getByLabel('Path', { exact: true }).waitFor();
    return page;
  };
  const typedIn = (page: Page): Promise<string> => page.getByLabel('Path', { exact: true }).inputValue();
  let last = '/live/main';
  for (let round = 0; round < 6; round++) {
    const page = await open();
    const bar = page.getByRole('alert').filter({ hasText: 'another tab' });
    if (await bar.isVisible()) await bar.getByRole('button', { name: 'Use this tab’s version' }).click();
    if ((await typedIn(page)) !== last) throw new Found(`typed last: ${last}, found: ${await typedIn(page)}`);
    for (let edits = 1 + random.below(4); edits > 0; edits--) {
      last = `/edit/${random.below(1e9)}`;
      await page.getByLabel('Path', { exact: true }).fill(last);
      await page.getByLabel('Path', { exact: true }).blur();
      if (random.once(2)) await page.waitForTimeout(random.below(900));
    }
    if (random.once(3)) await page.reload();
    else await page.close({ runBeforeUnload: random.once(2) });
    if (!page.isClosed()) await page.close();
  }
  const page = await open();
  const read = readSite(await storedRecord(page));
  if (!read.ok) throw new Found(`the stored site does not open: ${read.error.message}`);
  await context.close();
  await stands(demo, 'closed windows');
}
