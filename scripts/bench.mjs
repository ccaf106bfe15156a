// `npm run bench`: figures as ratios to a peer in the same run, printed as a table.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt } from './ensure-built.mjs';
import { ensureDebian, FFPROBE, root } from './ensure-installed.mjs';

ensureBuilt('web', 'node', 'bench');
ensureDebian(FFPROBE);
const args = [join(root, 'dist/bench/run.mjs')];
process.exitCode = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' }).status ?? 1;
