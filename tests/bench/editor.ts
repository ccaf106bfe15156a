import { editMs } from './site-edit.ts';

// A process of its own for each size, as a page is: what else ran before would be cleaned up at its cost.
process.stdout.write(String(editMs(Number(process.argv[2]))));
