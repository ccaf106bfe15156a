import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { RunOptions, run as runAxe } from 'axe-core';
import { expect, type Page } from './browser.ts';

const AXE = createRequire(import.meta.url).resolve('axe-core/axe.min.js');
declare const axe: { readonly run: typeof runAxe } | undefined;

const RUN: RunOptions = {
  runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
  // each colour of words is tried on each that it may stand on, light and dark, without a browser
  rules: { 'color-contrast': { enabled: false } },
  resultTypes: ['violations'],
};

/**
 * All rules but that of colours, on the light sheet: the dark one differs in nothing else. Where a
 * slip is open it is looked at by itself: what lies below was looked at before it opened, and cannot be reached.
 */
export async function checkAccess(page: Page): Promise<void> {
  if (!(await page.evaluate(() => typeof axe === 'object'))) await page.evaluate(await readFile(AXE, 'utf8'));
  const wrong = await page.evaluate(async (how) => {
    const slip = document.querySelector('[role=dialog]');
    const found = await axe?.run(slip ?? document, how);
    return found?.violations.map(({ id, nodes }) => ({ id, at: nodes.map(({ target }) => target) }));
  }, RUN);
  expect(wrong).toEqual([]);
}

export const noSidewaysScroll = async (page: Page): Promise<void> => {
  const wider = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wider).toBe(0);
};
