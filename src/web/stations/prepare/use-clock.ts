import { useEffect, useState } from 'react';

const TICK_MS = 250;

/**
 * The time, a few times a second. It is read, never counted: a tab in the background, a locked screen and a page that was
 * closed show the right one as soon as they are looked at.
 */
export function useClock(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const look = (): void => setNow(Date.now());
    const timer = setInterval(look, TICK_MS);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, []);
  return now;
}
