import { useEffect } from 'react';
import type { PtzVelocity } from '../../../../core/onvif/services/ptz.ts';
import type { Hand } from './use-steer.ts';

/** Keys that turn the head while they are held: which way each points. */
const KEYS: Readonly<Record<string, Readonly<PtzVelocity>>> = {
  ArrowLeft: { pan: -1, tilt: 0, zoom: 0 },
  ArrowRight: { pan: 1, tilt: 0, zoom: 0 },
  ArrowUp: { pan: 0, tilt: 1, zoom: 0 },
  ArrowDown: { pan: 0, tilt: -1, zoom: 0 },
  '+': { pan: 0, tilt: 0, zoom: 1 },
  '=': { pan: 0, tilt: 0, zoom: 1 },
  '-': { pan: 0, tilt: 0, zoom: -1 },
};

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(?:INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
const isCovered = (): boolean => document.querySelector('[role="dialog"], [role="menu"]') !== null;

/** Arrows turn, + and − zoom, blank stops; two keys at once turn aslant. Letting go stops. */
export function useSteerKeys({ hold, release, stop, state }: Hand, speed: number): void {
  const isReady = state.status === 'ready';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the hand is the same one as long as it is ready
  useEffect(() => {
    if (!isReady) return;
    const down = new Set<string>();
    const turn = (): void => {
      const sum = { pan: 0, tilt: 0, zoom: 0 };
      for (const key of down) {
        const way = KEYS[key];
        if (!way) continue;
        sum.pan += way.pan * speed;
        sum.tilt += way.tilt * speed;
        sum.zoom += way.zoom * speed;
      }
      if (down.size === 0 || (sum.pan === 0 && sum.tilt === 0 && sum.zoom === 0)) release();
      else hold(sum);
    };
    const onDown = (event: KeyboardEvent): void => {
      if (isTyping(event.target) || isCovered() || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === ' ' && !(event.target instanceof HTMLButtonElement)) {
        event.preventDefault();
        down.clear();
        return stop();
      }
      if (!Object.hasOwn(KEYS, event.key)) return;
      event.preventDefault();
      if (event.repeat) return;
      down.add(event.key);
      turn();
    };
    const onUp = (event: KeyboardEvent): void => {
      if (down.delete(event.key)) turn();
    };
    window.addEventListener('keydown', onDown);
    window.addEventListener('keyup', onUp);
    return () => {
      window.removeEventListener('keydown', onDown);
      window.removeEventListener('keyup', onUp);
      release();
    };
  }, [isReady, speed]);
}
