import { type Remote, wrap } from 'comlink';
import type { PixelWork } from './pixel-worker.ts';
import type { PlanWork } from './plan-worker.ts';

let pixels: Remote<PixelWork> | null = null;
let plans: Remote<PlanWork> | null = null;

/** One worker of each kind for the visit, started when it is first asked for. */
export function pixelWorker(): Remote<PixelWork> {
  pixels ??= wrap<PixelWork>(new Worker(new URL('./pixel-worker.ts', import.meta.url), { type: 'module' }));
  return pixels;
}

export function planWorker(): Remote<PlanWork> {
  plans ??= wrap<PlanWork>(new Worker(new URL('./plan-worker.ts', import.meta.url), { type: 'module' }));
  return plans;
}
