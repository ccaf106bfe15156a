import type { Vault } from './vault.ts';

/** How long an open vault stays open without a hand on the page. */
export const IDLE_LOCK_MS = 10 * 60 * 1000;

const SIGNS_OF_LIFE = ['pointerdown', 'keydown', 'wheel', 'touchstart'] as const;

/**
 * Locks the vault when nothing was touched for a while. Time is read from the clock at each check, since a sleeping laptop
 * stops timers; on waking the vault is locked before anything can be read.
 */
export function lockWhenIdle(vault: Vault, idleMs = IDLE_LOCK_MS): () => void {
  let touchedAt = Date.now();
  const touch = (): void => {
    if (vault.state === 'open' && Date.now() - touchedAt > idleMs) void vault.lock();
    touchedAt = Date.now();
  };
  const check = (): void => {
    if (vault.state === 'open' && Date.now() - touchedAt > idleMs) void vault.lock();
  };
  for (const sign of SIGNS_OF_LIFE) globalThis.addEventListener(sign, touch, { passive: true });
  document.addEventListener('visibilitychange', check);
  const timer = setInterval(check, Math.min(15_000, idleMs / 4));
  return () => {
    for (const sign of SIGNS_OF_LIFE) globalThis.removeEventListener(sign, touch);
    document.removeEventListener('visibilitychange', check);
    clearInterval(timer);
  };
}
