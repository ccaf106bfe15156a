import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Reflash } from '../../../core/document/chapters/cameras/reflash.ts';

export interface BenchProps {
  readonly camera: Camera;
  readonly reflash: Reflash;
  readonly set: (change: Partial<Reflash>) => void;
}
