import { useEffect, useRef } from 'react';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Runs an action when its key is pressed outside any field. */
export function useShortcut(key: string, action: () => void): void {
  const latest = useRef(action);
  latest.current = action;
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key.toLowerCase() !== key || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target))
        return;
      if (document.querySelector('[role="dialog"], [role="menu"]')) return;
      event.preventDefault();
      latest.current();
    };
    globalThis.addEventListener('keydown', onKey);
    return () => globalThis.removeEventListener('keydown', onKey);
  }, [key]);
}
