import type { Seen } from './around.ts';
import type { PictureFormat } from './painter.ts';

/** A group of pictures to draw and encode. */
export interface GroupRequest extends PictureFormat {
  readonly codec: 'H264' | 'JPEG';
  readonly fps: number;
  readonly frames: number;
  /** Time of the first picture, as its clock will show it. */
  readonly startUnixMs: number;
  /** H.264 quantiser, 10 (fine) … 51 (coarse); for JPEG its quality, 1 … 100 (fine). */
  readonly quantiser: number;
  /** Where its head looks at each frame, where it has one. */
  readonly seen?: readonly Seen[];
}
