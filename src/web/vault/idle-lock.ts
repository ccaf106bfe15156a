import type { Vault } from './vault-contract.ts';

/** How long an open vault stays open without a hand on the page. */
export const IDLE_LOCK_MS = 10 * 60 * 1000;

const SIGNS_OF_LIFE = ['pointerdown', 'keydown', 'wheel', 'touchstart'] as const;

/**
 * Locks the vault when nothing was touched for a while. Time is read at each check, since a sleeping laptop
 * stops timers; a wall clock that is set back locks it too; on waking the vault is locked before anything can be read.
 */
export function lockWhenIdle(vault: Pick<Vault, 'state' | 'lock'>, idleMs = IDLE_LOCK_MS): () => void {
  // a clock that is set back would keep it open, and a monotonic one may stand still while the laptop sleeps: the longer counts
  let touched = { wall: Date.now(), monotonic: performance.now() };
  const isIdle = (): boolean =>
    Math.max(Date.now() - touched.wall, performance.now() - touched.monotonic) > idleMs ||
    Date.now() < touched.wall - 1000;
  const check = (): void => {
    if (vault.state === 'open' && isIdle()) void vault.lock();
  };
  const touch = (): void => {
    check();
    touched = { wall: Date.now(), monotonic: performance.now() };
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
