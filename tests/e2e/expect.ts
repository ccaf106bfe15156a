import { type Locator, expect as plain } from '@playwright/test';

/** Others take the machine’s cores at times: a page that is late is not a page that is wrong. */
export const LONGEST_MS = 15_000;

/** What is asked of one element that has to be on the page, and those of them that ask for it to be seen. */
const OF_ONE =
  /^to(Be(Visible|Enabled|Disabled|Checked|Focused|Editable)|Have(Value|Text|Attribute|AccessibleName)|ContainText)$/;
const hasTimeout = (given: unknown): given is { readonly timeout: number } =>
  typeof given === 'object' && given !== null && 'timeout' in given;
const isLocator = (actual: unknown): actual is Locator =>
  typeof actual === 'object' && actual !== null && 'waitFor' in actual;

/**
 * As the runner’s own, which describes the whole page each time that an element is not there yet: on a page such as ours that
 * takes longer than what is waited for. So the element is waited for first; what the runner says of a failure stays.
 */
export const expect: typeof plain = new Proxy(plain, {
  apply(target, self, given: Parameters<typeof plain>) {
    const asked = Reflect.apply(target, self, given);
    const [actual] = given;
    if (!isLocator(actual)) return asked;
    return new Proxy(asked, {
      get(matchers, name) {
        const matcher = Reflect.get(matchers, name);
        if (typeof name !== 'string' || !OF_ONE.test(name)) return matcher;
        return async (...rest: readonly unknown[]) => {
          const { timeout } = rest.find(hasTimeout) ?? { timeout: LONGEST_MS };
          const state = name === 'toBeVisible' ? 'visible' : 'attached';
          await actual.waitFor({ state, timeout }).catch(() => {}); // it is told below, as it stands then
          return Reflect.apply(matcher, matchers, rest);
        };
      },
    });
  },
});
