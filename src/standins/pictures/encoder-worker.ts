// Draws and encodes away from the thread that serves sockets, one group at a time, in the order asked.
import { parentPort } from 'node:worker_threads';
import { GroupEncoder } from './group-encoder.ts';
import type { GroupRequest } from './group-request.ts';

const encoder = new GroupEncoder();
let queue: Promise<void> = Promise.resolve();

parentPort?.on('message', ({ id, request }: { id: number; request: GroupRequest }) => {
  queue = queue.then(async () => {
    try {
      parentPort?.postMessage({ id, group: await encoder.encode(request) });
    } catch (error) {
      parentPort?.postMessage({ id, failed: String(error) });
    }
  });
});
