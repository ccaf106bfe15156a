// `npm run bench`: figures as ratios to a peer in the same run, printed as a table. Parts of it by their names: `npm run bench -- receive edit`.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt } from './ensure-built.mjs';
import { ensureDebian, FFPROBE, root } from './ensure-installed.mjs';

ensureBuilt('web', 'node', 'bench');
ensureDebian(FFPROBE);
const args = [join(root, 'dist/bench/run.mjs'), ...process.argv.slice(2)];
process.exitCode = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' }).status ?? 1;
