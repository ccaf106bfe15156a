import { readFileSync } from 'node:fs';
import { anewMs, editCost, openMs } from './site-edit.ts';

// A process of its own for each size and each file, as a worker is: what else ran before would be cleaned up at its cost.
const [what = '', file = '', runs = ''] = process.argv.slice(2);
process.stdout.write(
  what === 'open'
    ? String(openMs(readFileSync(file, 'utf8'), Number(runs)))
    : JSON.stringify({ edit: editCost(Number(what)), anewMs: anewMs(Number(what)) }),
);
