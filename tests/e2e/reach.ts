import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { RunOptions, run as runAxe } from 'axe-core';
import { retiredIn } from '../support/retired-words.ts';
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

/** What the view says, shown or by name, in the field's words; lines of an exchange are the device's own. */
export async function checkWords(page: Page): Promise<void> {
  const lines = await page.evaluate(() => {
    const named = [...document.querySelectorAll('[aria-label], [title], [placeholder]')].flatMap((one) =>
      ['aria-label', 'title', 'placeholder'].map((name) => one.getAttribute(name) ?? ''),
    );
    const exchange = [...document.querySelectorAll('pre')].map((one) => one.textContent ?? '');
    // biome-ignore lint/performance/useDomNodeTextContent: what is hidden is not said
    const shown = document.body.innerText.split('\n').filter((line) => !exchange.some((said) => said.includes(line)));
    return [...new Set([...shown, ...named])];
  });
  expect(lines.flatMap(retiredIn)).toEqual([]);
}
