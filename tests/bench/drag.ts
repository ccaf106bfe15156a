import { chromium, type Page } from '@playwright/test';
import type { Site } from '../../src/core/document/site.ts';
import { writeSiteFile } from '../../src/core/document/site-file.ts';
import { startDemo } from './demo-server.ts';
import { type Figure, median } from './measure.ts';
import { siteOf } from './site-edit.ts';

const LONG_TASK_MS = 50;
const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const ROUNDS = 5;

/** Two hundred cameras on a plan of two hundred metres, with as many walls to cut their views. */
function drawnSite(): Site {
  const site = siteOf(200);
  const walls = Array.from({ length: 200 }, (_, i) => {
    const from = { xM: (i * 7.3) % 200, yM: (i * 3.1) % 30 };
    return { id: `w${i}`, name: '', from, to: { xM: from.xM + 4, yM: from.yM + (i % 3) }, material: 'brick' as const };
  });
  return { ...site, id: 'large', name: 'Large', plan: { ...site.plan, widthM: 200, heightM: 40, walls } };
}

/**
 * Drags from one spot to another and back, and tells the longest task of it, letting go and all that follows included, as
 * the browser's own observer has it. It reports none below 50 ms: then it is 0.
 */
async function longestTaskMs(page: Page, from: { x: number; y: number }): Promise<number> {
  await page.evaluate(() => {
    const seen = { longestMs: 0 };
    Object.assign(globalThis, { seen });
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) seen.longestMs = Math.max(seen.longestMs, duration);
    }).observe({ type: 'longtask' });
  });
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let step = 0; step < 40; step++) await page.mouse.move(from.x + step * 3, from.y + (step % 5));
  await page.mouse.move(from.x, from.y);
  await page.mouse.up();
  await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 400)));
  return page.evaluate(() => (globalThis as unknown as { seen: { longestMs: number } }).seen.longestMs);
}

export async function dragFigures(root: string): Promise<Figure[]> {
  const { server, address } = await startDemo(root);
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox', '--disable-gpu'] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    const buffer = Buffer.from(writeSiteFile(drawnSite()));
    await page.getByLabel('Site file').setInputFiles({ name: 'large.json', mimeType: 'application/json', buffer });
    await page.locator('a[href="/site/large/plan"]').first().click();
    await page.waitForTimeout(500);
    const plan = page.getByRole('application', { name: /^Plan/ });
    await plan.waitFor();
    await page.waitForTimeout(1500); // the wedges of all cameras have come from the worker
    const box = await plan.boundingBox();
    if (!box) throw new Error('no plan');
    const scale = (box.width - 2) / 200;
    const camera = { x: box.x + 1 + 55 * scale, y: box.y + 1 + 10 * scale };
    const onPlan: number[] = [];
    for (let round = 0; round < ROUNDS; round++) onPlan.push(await longestTaskMs(page, camera));

    await page.goto(`${address}/site/large/camera/c7/choose`);
    const figure = page.getByRole('slider', { name: 'Distance of the target' });
    await figure.waitFor();
    const onBench: number[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      const at = await figure.boundingBox();
      if (at) onBench.push(await longestTaskMs(page, { x: at.x + at.width / 2, y: at.y + at.height / 2 }));
    }
    const row = (what: string, times: readonly number[]): Figure => ({
      what,
      value: median(times),
      unit: 'ms',
      against: LONG_TASK_MS,
      peer: 'a long task',
      isFixedTime: true,
      limit: 1,
    });
    return [
      row('dragging a camera on the plan of 200: longest task', onPlan),
      row('dragging the target on the optics bench: longest task', onBench),
    ];
  } finally {
    await browser.close();
    server.kill('SIGTERM');
  }
}
