import { type BitsPerSecond, kilobits } from '../base/units.ts';

/** Bits per pixel of a key frame and of the frames between, scene as on an ordinary day. Assumptions, editable later. */
const BITS_PER_PIXEL: Readonly<Record<string, { readonly key: number; readonly between: number }>> = {
  H264: { key: 0.55, between: 0.05 },
  H265: { key: 0.4, between: 0.032 },
  JPEG: { key: 1.2, between: 1.2 },
};

export interface PictureRate {
  readonly codec: string;
  readonly width: number;
  readonly height: number;
  readonly fps: number;
  readonly gopFrames: number;
}

/**
 * Rate that an encoder of this codec needs for an ordinary scene; `null` for a codec the model does not know.
 * rate = W × H × fps × (key + (n − 1) × between) / n. A measured rate always overrides it.
 * Source: own model; 1920×1080 at 15, H.264, key frame every 30 → 2.07 Mbit/s.
 */
export function modelledRate({ codec, width, height, fps, gopFrames }: PictureRate): BitsPerSecond | null {
  const perPixel = BITS_PER_PIXEL[codec];
  if (!perPixel) return null;
  const group = Math.max(1, gopFrames);
  return kilobits((width * height * fps * (perPixel.key + (group - 1) * perPixel.between)) / group / 1000);
}
