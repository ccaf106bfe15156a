// Draws and encodes away from the thread that serves sockets, one group at a time: it is asked again when it has answered.
import { parentPort } from 'node:worker_threads';
import { GroupEncoder } from './group-encoder.ts';
import type { GroupRequest } from './group-request.ts';

const encoder = new GroupEncoder();

parentPort?.on('message', (request: GroupRequest) => {
  encoder.encode(request).then(
    (group) => parentPort?.postMessage({ group }),
    (error: unknown) => parentPort?.postMessage({ failed: String(error) }),
  );
});
