import { Worker } from 'node:worker_threads';
import type { GroupRequest } from './group-request.ts';
import type { EncodedGroup } from './mp4-samples.ts';
import type { EncodeGroup } from './picture-feed.ts';

export interface EncoderThread {
  readonly encode: EncodeGroup;
  close(): Promise<void>;
}

type Reply = { readonly group: EncodedGroup } | { readonly failed: string };

interface Asked {
  readonly request: GroupRequest;
  readonly dueUnixMs: number;
  readonly resolve: (group: EncodedGroup) => void;
  readonly reject: (error: Error) => void;
}

/** From source the worker needs the TypeScript loader; in the built bundle it lies beside this file as plain JavaScript. */
function startWorker(): Worker {
  if (!import.meta.url.endsWith('.ts')) return new Worker(new URL('./encoder-worker.mjs', import.meta.url));
  const module = new URL('./encoder-worker.ts', import.meta.url).href;
  return new Worker(new URL('./worker-boot.mjs', import.meta.url), { workerData: { module } });
}

/** One thread that draws and encodes for the whole fleet: what is to be shown first, first. It starts when it is asked. */
export function createEncoderThread(): EncoderThread {
  let waiting: Asked[] = [];
  let current: Asked | null = null;
  let worker: Worker | null = null;
  const failAll = (error: Error): void => {
    for (const { reject } of current ? [current, ...waiting] : waiting) reject(error);
    waiting = [];
    current = null;
  };
  const next = (): void => {
    if (current || waiting.length === 0) return;
    current = waiting.reduce((first, one) => (one.dueUnixMs < first.dueUnixMs ? one : first));
    waiting = waiting.filter((one) => one !== current);
    running().postMessage(current.request);
  };
  const running = (): Worker => {
    if (worker) return worker;
    worker = startWorker();
    worker.on('message', (reply: Reply) => {
      const asked = current;
      current = null;
      if ('group' in reply) asked?.resolve(reply.group);
      else asked?.reject(new Error(`The picture could not be encoded: ${reply.failed}`));
      next();
    });
    worker.on('error', (error) => {
      worker = null;
      failAll(error);
    });
    return worker;
  };
  return {
    encode: (request, dueUnixMs) =>
      new Promise((resolve, reject) => {
        waiting.push({ request, dueUnixMs, resolve, reject });
        next();
      }),
    close: async () => {
      failAll(new Error('The stand-ins were stopped'));
      await worker?.terminate();
      worker = null;
    },
  };
}
