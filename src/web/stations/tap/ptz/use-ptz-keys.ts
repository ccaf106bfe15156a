import { useEffect, useRef } from 'react';
import type { PtzVelocity } from '../../../../core/onvif/services/ptz.ts';
import type { Hand } from './use-ptz.ts';

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
export function usePtzKeys({ hold, release, stop, state }: Hand, speed: number): void {
  const isReady = state.status === 'ready';
  const isMoving = useRef(false);
  isMoving.current = state.isMoving !== false; // a head that does not tell may well move
  // biome-ignore lint/correctness/useExhaustiveDependencies: the hand is the same one as long as it is ready
  useEffect(() => {
    if (!isReady) return;
    // by the place of the key: “+” goes down with Shift and comes up as “=” when Shift is let go first
    const down = new Map<string, string>();
    const turn = (): void => {
      const sum = { pan: 0, tilt: 0, zoom: 0 };
      for (const key of down.values()) {
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
      // while it moves the space bar is the stop, whatever button was pressed last
      if (event.key === ' ' && (isMoving.current || !(event.target instanceof HTMLButtonElement))) {
        if (event.repeat || event.defaultPrevented) return;
        event.preventDefault();
        down.clear();
        return stop();
      }
      if (!Object.hasOwn(KEYS, event.key)) return;
      event.preventDefault();
      if (event.repeat) return;
      down.set(event.code, event.key);
      turn();
    };
    const onUp = (event: KeyboardEvent): void => {
      if (down.delete(event.code)) turn();
    };
    // whoever turns to another window lets a key go that is never told of
    const onBlur = (): void => down.clear();
    window.addEventListener('keydown', onDown);
    window.addEventListener('keyup', onUp);
    window.addEventListener('blur', onBlur);
    return () => {
      window.removeEventListener('keydown', onDown);
      window.removeEventListener('keyup', onUp);
      window.removeEventListener('blur', onBlur);
      release();
    };
  }, [isReady, speed]);
}
