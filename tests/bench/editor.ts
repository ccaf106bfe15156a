import { anewMs, editCost } from './site-edit.ts';

// A process of its own for each size, as a worker is: what else ran before would be cleaned up at its cost.
const cameras = Number(process.argv[2]);
process.stdout.write(JSON.stringify({ edit: editCost(cameras), anewMs: anewMs(cameras) }));
