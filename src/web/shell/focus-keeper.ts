import type { createAppRouter } from '../router.tsx';

// Who works by keys must know where they are. A page change puts the focus on the new heading; a control that goes away by what
// it did leaves it at the heading of what it belonged to, never on the page's body.

type Router = ReturnType<typeof createAppRouter>;

/** A page that loads its code takes a while to have its heading. */
const LONGEST_WAIT_MS = 3000;

/** Parts of the page that have a heading of their own, from the inside out. */
const PARTS = '[data-made], [role="dialog"], section, fieldset, li, main';
/** What lies over the page has keys of its own. */
const OVER = '[role="dialog"], [role="menu"]';
const HEADINGS = 'h1, h2, h3, [data-heading]';

function focusOn(element: HTMLElement): void {
  if (!element.matches('a[href], button, input, select, textarea, [tabindex]')) element.tabIndex = -1;
  element.focus({ preventScroll: true });
  element.scrollIntoView({ block: 'nearest' });
}

const isLost = (): boolean => document.activeElement === null || document.activeElement === document.body;
const headingOf = (part: Element | null): HTMLElement | null => part?.querySelector<HTMLElement>(HEADINGS) ?? null;
const pageHeading = (): HTMLElement | null => document.querySelector<HTMLElement>('#work h1, main h1');

/** Where the focus was, and what was around it: of what is taken out of the page nobody else remembers its place. */
interface Remembered {
  readonly element: HTMLElement;
  readonly around: readonly Element[];
}

function ancestorsOf(element: Element): readonly Element[] {
  const around: Element[] = [];
  for (let up = element.parentElement; up; up = up.parentElement) around.push(up);
  return around;
}

/** The nearest heading around a place that is still there. */
function headingNear({ around }: Remembered): HTMLElement | null {
  for (const part of around)
    if (part.isConnected && part.matches(PARTS)) {
      const heading = headingOf(part);
      if (heading) return heading;
    }
  return pageHeading();
}

const isGone = (element: HTMLElement): boolean =>
  !element.isConnected || (element instanceof HTMLButtonElement && element.disabled);

/** Keeps the focus from falling to the body, for as long as the page is there. */
export function keepFocus(router: Router): void {
  let last: Remembered | null = null;
  /** Until then the heading of a page that was gone to is waited for. */
  let wantedUntilMs = 0;
  document.addEventListener('focusin', ({ target }) => {
    if (target instanceof HTMLElement && target !== document.body)
      last = { element: target, around: ancestorsOf(target) };
  });

  // Out of a field without a pointer: then the keys of the view work again.
  document.addEventListener('keydown', ({ key, target, defaultPrevented }) => {
    if (key !== 'Escape' || defaultPrevented || !last || document.querySelector(OVER)) return;
    if (!(target instanceof HTMLElement) || !target.matches('#work input, #work select, #work textarea')) return;
    const heading = headingNear(last);
    if (heading) focusOn(heading);
  });

  const look = (): void => {
    if (performance.now() < wantedUntilMs) {
      const heading = pageHeading();
      if (!heading || router.state.navigation.state !== 'idle') return;
      wantedUntilMs = 0;
      if (!document.querySelector('[role="dialog"]')) focusOn(heading);
      return;
    }
    // A dialog that closes gives it back by itself, a moment later.
    if (last && isLost() && isGone(last.element)) setTimeout(restore, 0);
  };
  const restore = (): void => {
    if (!last || !isLost() || !isGone(last.element)) return;
    const heading = headingNear(last);
    if (heading) focusOn(heading);
  };
  new MutationObserver(look).observe(document.body, {
    subtree: true,
    childList: true,
    attributes: true,
    attributeFilter: ['disabled'],
  });

  let path = router.state.location.pathname;
  router.subscribe(({ location, navigation }) => {
    if (navigation.state !== 'idle' || location.pathname === path) return;
    path = location.pathname;
    wantedUntilMs = performance.now() + LONGEST_WAIT_MS;
    requestAnimationFrame(look);
  });
}
