import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** All rules on the light sheet; the dark one differs from it in its colours alone. */
export async function checkAccess(page: Page, scheme: 'light' | 'dark'): Promise<void> {
  // No view has frames: what joins their results (a page of its own each time) is left out.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
  const { violations } = await (scheme === 'dark'
    ? axe.withRules('color-contrast')
    : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  ).analyze();
  expect(violations.map(({ id, nodes }) => ({ id, at: nodes.map(({ target }) => target) }))).toEqual([]);
}

export const noSidewaysScroll = async (page: Page): Promise<void> => {
  const wider = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wider).toBe(0);
};
