import { Worker } from 'node:worker_threads';
import type { GroupRequest } from './group-request.ts';
import type { EncodedGroup } from './mp4-samples.ts';
import type { EncodeGroup } from './picture-feed.ts';

export interface EncoderThread {
  readonly encode: EncodeGroup;
  close(): Promise<void>;
}

type Reply = { readonly id: number; readonly group: EncodedGroup } | { readonly id: number; readonly failed: string };

/** From source the worker needs the TypeScript loader; in the built bundle it lies beside this file as plain JavaScript. */
function startWorker(): Worker {
  if (!import.meta.url.endsWith('.ts')) return new Worker(new URL('./encoder-worker.mjs', import.meta.url));
  const module = new URL('./encoder-worker.ts', import.meta.url).href;
  return new Worker(new URL('./worker-boot.mjs', import.meta.url), { workerData: { module } });
}

/** One thread that draws and encodes for the whole fleet; it starts with the first request. */
export function createEncoderThread(): EncoderThread {
  const waiting = new Map<number, { resolve: (group: EncodedGroup) => void; reject: (error: Error) => void }>();
  let worker: Worker | null = null;
  let lastId = 0;
  const failAll = (error: Error): void => {
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  const running = (): Worker => {
    if (worker) return worker;
    worker = startWorker();
    worker.on('message', (reply: Reply) => {
      const asked = waiting.get(reply.id);
      waiting.delete(reply.id);
      if ('group' in reply) asked?.resolve(reply.group);
      else asked?.reject(new Error(`The picture could not be encoded: ${reply.failed}`));
    });
    worker.on('error', failAll);
    return worker;
  };
  return {
    encode: (request: GroupRequest) =>
      new Promise((resolve, reject) => {
        lastId += 1;
        waiting.set(lastId, { resolve, reject });
        running().postMessage({ id: lastId, request });
      }),
    close: async () => {
      failAll(new Error('The stand-ins were stopped'));
      await worker?.terminate();
      worker = null;
    },
  };
}
