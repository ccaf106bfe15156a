import { type RefObject, useEffect, useRef } from 'react';

const [LEAST, MOST] = [1, 6];

/** Two fingers enlarge and move what lies in a frame that scrolls: what is between them stays between them. */
export function usePinch(frame: RefObject<HTMLElement | null>, zoom: number, onZoom: (zoom: number) => void): void {
  const now = useRef({ zoom, onZoom });
  now.current = { zoom, onZoom };
  useEffect(() => {
    const node = frame.current;
    if (!node) return;
    let begun: { readonly apart: number; readonly zoom: number; readonly x: number; readonly y: number } | null = null;
    const read = ({ touches }: TouchEvent) => {
      const [a, b] = [touches[0], touches[1]];
      return a && b
        ? {
            apart: Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY),
            x: (a.clientX + b.clientX) / 2,
            y: (a.clientY + b.clientY) / 2,
          }
        : null;
    };
    const onStart = (event: TouchEvent): void => {
      const two = read(event);
      begun = two && { ...two, zoom: now.current.zoom };
    };
    const onMove = (event: TouchEvent): void => {
      const two = read(event);
      if (!two || !begun) return;
      event.preventDefault();
      const next = Math.min(MOST, Math.max(LEAST, (begun.zoom * two.apart) / begun.apart));
      const grown = next / now.current.zoom;
      const box = node.getBoundingClientRect();
      const [x, y] = [two.x - box.left, two.y - box.top];
      const left = (node.scrollLeft + x) * grown - x - (two.x - begun.x);
      const top = (node.scrollTop + y) * grown - y - (two.y - begun.y);
      begun = { ...begun, x: two.x, y: two.y };
      now.current.onZoom(next);
      requestAnimationFrame(() => node.scrollTo(left, top));
    };
    const onEnd = (event: TouchEvent): void => {
      if (event.touches.length < 2) begun = null;
    };
    node.addEventListener('touchstart', onStart, { passive: true });
    node.addEventListener('touchmove', onMove, { passive: false });
    node.addEventListener('touchend', onEnd);
    return () => {
      node.removeEventListener('touchstart', onStart);
      node.removeEventListener('touchmove', onMove);
      node.removeEventListener('touchend', onEnd);
    };
  }, [frame]);
}
