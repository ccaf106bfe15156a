import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { RunOptions, run as runAxe } from 'axe-core';
import { expect, type Page } from './browser.ts';

const AXE = createRequire(import.meta.url).resolve('axe-core/axe.min.js');
declare const axe: { readonly run: typeof runAxe } | undefined;

const RUNS: Readonly<Record<'light' | 'dark', RunOptions>> = {
  light: { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] },
  dark: { runOnly: { type: 'rule', values: ['color-contrast'] } },
};

/**
 * All rules on the light sheet, and of the dark one, which differs in its colours alone, those. Where a slip is open it is
 * looked at by itself: what lies below was looked at before it opened, and cannot be reached.
 */
export async function checkAccess(page: Page): Promise<void> {
  if (!(await page.evaluate(() => typeof axe === 'object'))) await page.evaluate(await readFile(AXE, 'utf8'));
  for (const [scheme, options] of Object.entries(RUNS)) {
    await page.emulateMedia({ colorScheme: scheme === 'dark' ? 'dark' : 'light' });
    const wrong = await page.evaluate(async (how) => {
      const slip = document.querySelector('[role=dialog]');
      const found = await axe?.run(slip ?? document, { ...how, resultTypes: ['violations'] });
      return found?.violations.map(({ id, nodes }) => ({ id, at: nodes.map(({ target }) => target) }));
    }, options);
    expect({ scheme, wrong }).toEqual({ scheme, wrong: [] });
  }
  await page.emulateMedia({ colorScheme: 'light' });
}

export const noSidewaysScroll = async (page: Page): Promise<void> => {
  const wider = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wider).toBe(0);
};
