// `npm run -s vectors -- FILE…`
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root } from './ensure-installed.mjs';

ensureInstalled();
const args = ['--import', 'tsx', join(root, 'tests/vectors/run.ts'), ...process.argv.slice(2)];
process.exitCode = spawnSync(process.execPath, args, { stdio: 'inherit' }).status ?? 1;
