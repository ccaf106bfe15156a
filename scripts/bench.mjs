// `npm run bench`: figures as ratios to a peer in the same run, printed as a table.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt } from './ensure-built.mjs';
import { ensureDebian, ffprobe, root } from './ensure-installed.mjs';

ensureBuilt('web', 'node');
ensureDebian('ffmpeg', ffprobe);
const args = ['--import', 'tsx', join(root, 'tests/bench/run.ts')];
process.exitCode = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' }).status ?? 1;
