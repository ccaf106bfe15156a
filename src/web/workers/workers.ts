import { type Remote, wrap } from 'comlink';
import type { ImageWork } from './image-worker.ts';
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

/** A worker for one image: whoever cancels ends it, at once and in the middle of a piece. `failed` rejects when it cannot run. */
export function imageWorker(): { readonly work: Remote<ImageWork>; readonly failed: Promise<never>; end(): void } {
  const worker = new Worker(new URL('./image-worker.ts', import.meta.url), { type: 'module' });
  const failed = new Promise<never>((_, reject) => {
    worker.addEventListener('error', (event) => reject(new Error(event.message)), { once: true });
  });
  failed.catch(() => {}); // told to whoever waits for the work
  return { work: wrap<ImageWork>(worker), failed, end: () => worker.terminate() };
}
