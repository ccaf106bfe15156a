import { STEERING_LIMITS } from '../../../../core/document/chapters/cameras/ptz.ts';

const WIDTH = 240;
const QUALITIES = [0.7, 0.5, 0.3] as const;

/** A small picture of what a canvas shows; empty where it shows nothing, or too much to be kept. */
export function stillOf(canvas: HTMLCanvasElement | null): string {
  if (!canvas || canvas.width === 0 || canvas.classList.contains('hidden')) return '';
  const small = document.createElement('canvas');
  small.width = WIDTH;
  small.height = Math.max(1, Math.round((WIDTH * canvas.height) / canvas.width));
  small.getContext('2d')?.drawImage(canvas, 0, 0, small.width, small.height);
  for (const quality of QUALITIES) {
    const still = small.toDataURL('image/jpeg', quality);
    if (still.length <= STEERING_LIMITS.stillChars) return still;
  }
  return '';
}
