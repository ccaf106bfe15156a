import { type Remote, wrap } from 'comlink';
import type { ImageWork } from './image-worker.ts';
import type { ListWork } from './list-worker.ts';
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

/** A worker that does one thing for whoever asked, who may end it at once. `failed` rejects when it cannot run. */
export interface Errand<Work> {
  readonly work: Remote<Work>;
  readonly failed: Promise<never>;
  end(): void;
}

function errandOf<Work>(worker: Worker): Errand<Work> {
  const failed = new Promise<never>((_, reject) => {
    worker.addEventListener('error', (event) => reject(new Error(event.message)), { once: true });
  });
  failed.catch(() => {}); // told to whoever waits for the work
  return { work: wrap<Work>(worker), failed, end: () => worker.terminate() };
}

/** For one image: whoever cancels ends it in the middle of a piece. */
export const imageWorker = (): Errand<ImageWork> =>
  errandOf(new Worker(new URL('./image-worker.ts', import.meta.url), { type: 'module' }));

/** For one list or file of a router. */
export const listWorker = (): Errand<ListWork> =>
  errandOf(new Worker(new URL('./list-worker.ts', import.meta.url), { type: 'module' }));
