// A worker thread does not inherit tsx's loader on Node 20, so from source every worker starts here, in plain JavaScript.
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
await import(workerData.module);
